import type { AnyEndpoint } from '../endpoint';
import { browseApi } from './browse';
import { briefRecordApi } from './brief-records';
import { bookListApi } from './book-lists';
import { recordApi } from './catalogue';
import { copyListApi } from './copy-lists';
import { copyApi } from './copies';
import { daybookApi } from './daybook';
import { deliveryApi } from './deliveries';
import { headingApi } from './headings';
import { jobApi } from './jobs';
import { labelApi } from './labels';
import { loanFiguresApi } from './loan-figures';
import { linkApi } from './links';
import { localFieldApi } from './local-fields';
import { liveApi } from './live';
import { neighbourApi } from './neighbours';
import { peopleApi } from './people';
import { pileApi } from './piles';
import { recipeApi } from './recipes';
import { recordDeskApi } from './record-desk';
import { registryApi } from './registry';
import { searchApi } from './searches';
import { setupApi } from './setup';
import { starterApi } from './starters';
import { stocktakeApi } from './stocktakes';
import { supplierApi } from './suppliers';
import { overviewApi } from './today';
import { withdrawalApi } from './withdrawals';

/** The API: every path that the server answers and the web calls, by subject. */
export const api = {
  people: peopleApi,
  overview: overviewApi,
  deliveries: deliveryApi,
  recipes: recipeApi,
  desk: recordDeskApi,
  records: recordApi,
  links: linkApi,
  neighbours: neighbourApi,
  bookLists: bookListApi,
  briefRecords: briefRecordApi,
  labels: labelApi,
  starters: starterApi,
  headings: headingApi,
  registry: registryApi,
  copies: copyApi,
  copyLists: copyListApi,
  localFields: localFieldApi,
  loanFigures: loanFiguresApi,
  piles: pileApi,
  browse: browseApi,
  searches: searchApi,
  withdrawals: withdrawalApi,
  stocktakes: stocktakeApi,
  daybook: daybookApi,
  setup: setupApi,
  suppliers: supplierApi,
  jobs: jobApi,
  live: liveApi,
};

/** The same as one list. */
export const ENDPOINTS: readonly AnyEndpoint[] = Object.values(api).flatMap((subject) =>
  Object.values<AnyEndpoint>(subject),
);
