import { api } from '@osier/contract';
import { route, type Route } from '../http/route';
import type { Services } from '../services';
import { previewLabels, printLabels } from './labels';
import { keepLabelSheet, listLabelSheets, removeLabelSheet } from './sheets';

/** Labels of copies: what they look like, and the PDF. */
export const labelRoutes = (services: Services): Route[] => [
  route(api.labels.preview, ({ body, person }) => previewLabels(services, person.id, body)),
  route(api.labels.sheets, () => listLabelSheets(services)),
  route(api.labels.keepSheet, ({ body, person }) => keepLabelSheet(services, person.id, body)),
  route(api.labels.removeSheet, ({ params, body, person }) =>
    removeLabelSheet(services, person.id, params.id, body.version),
  ),
  route(api.labels.print, async ({ body, person, res }) => {
    const pdf = await printLabels(services, person.id, body);
    res.setHeader('content-disposition', 'attachment; filename="labels.pdf"');
    res.type('application/pdf').send(pdf);
    return undefined;
  }),
];
