import { api, copySearchBody, holdingSearchBody } from '@osier/contract';
import { route, type Route } from '../http/route';
import type { Services } from '../services';
import { lookAtBarcode } from './barcodes';
import { beginChangeCopies, reviewChangeCopies } from './change-many';
import { chartCopies } from './charts';
import { exportCopies } from './export';
import { listHoldings } from './holding-list';
import { listCopies } from './list';
import { addCopy, changeCopy, moveCopy, swapBarcodes } from './copies';
import { addHolding, changeHolding, joinHolding, moveHolding, removeHolding } from './holdings';
import { beginLoanFigures, reviewLoanFigures, takeLoanFigures } from './loan-figures';
import { changeLocalField, keepLocalField, listLocalFields, removeLocalField } from './local-fields';
import { addSeveralCopies, reviewSeveral } from './several';

/** Holdings and copies: add, change, move, look at a barcode. */
export const copyRoutes = (services: Services): Route[] => [
  route(api.copyLists.list, ({ query: { sort, down, after, ...search } }) =>
    listCopies(services, copySearchBody.cast(search), {
      sort: sort ?? 'shelf',
      down: down === 'yes',
      after,
    }),
  ),
  route(api.copyLists.holdings, ({ query: { after, ...search } }) =>
    listHoldings(services, holdingSearchBody.cast(search), after),
  ),
  route(api.copyLists.charts, ({ query }) => chartCopies(services, copySearchBody.cast(query))),
  route(api.copyLists.file, ({ query: { as = 'csv', holdings = 'within', ...search }, res }) =>
    exportCopies(services, copySearchBody.cast(search), as, holdings, res),
  ),
  route(api.copyLists.reviewChange, ({ body: { from, ...body } }) =>
    reviewChangeCopies(services, body, from),
  ),
  route(api.copyLists.change, ({ body, person }) => beginChangeCopies(services, person.id, body)),
  route(api.localFields.list, ({ query }) => listLocalFields(services, query.counted === 'yes')),
  route(api.localFields.keep, ({ body, person }) => keepLocalField(services, person.id, body)),
  route(api.localFields.change, ({ params, body, person }) =>
    changeLocalField(services, person.id, params.id, body),
  ),
  route(api.localFields.remove, ({ params, body, person }) =>
    removeLocalField(services, person.id, params.id, body.version),
  ),
  route(api.loanFigures.send, ({ req }) => takeLoanFigures(services, req)),
  route(api.loanFigures.review, ({ body: { from, ...body } }) => reviewLoanFigures(services, body, from)),
  route(api.loanFigures.load, ({ body, person }) => beginLoanFigures(services, person.id, body)),
  route(api.copies.addHolding, ({ body, person }) => addHolding(services, person.id, body)),
  route(api.copies.changeHolding, ({ params, body, person }) =>
    changeHolding(services, person.id, params.id, body),
  ),
  route(api.copies.removeHolding, ({ params, body, person }) =>
    removeHolding(services, person.id, params.id, body.version),
  ),
  route(api.copies.moveHolding, ({ params, body, person }) =>
    moveHolding(services, person.id, params.id, body),
  ),
  route(api.copies.joinHolding, ({ params, body, person }) =>
    joinHolding(services, person.id, params.id, body),
  ),
  route(api.copies.barcode, ({ params }) => lookAtBarcode(services, params.barcode)),
  route(api.copies.swap, ({ body, person }) => swapBarcodes(services, person.id, body)),
  route(api.copies.reviewSeveral, ({ body, person }) => reviewSeveral(services, person, body)),
  route(api.copies.addSeveral, ({ body, person }) => addSeveralCopies(services, person, body)),
  route(api.copies.add, ({ body, person }) => addCopy(services, person, body)),
  route(api.copies.change, ({ params, body, person }) => changeCopy(services, person, params.id, body)),
  route(api.copies.move, ({ params, body, person }) => moveCopy(services, person.id, params.id, body)),
];
