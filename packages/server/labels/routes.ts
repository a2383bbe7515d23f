import { api } from '@osier/contract';
import { route, type Route } from '../http/route';
import type { Services } from '../services';
import { previewLabels, printLabels } from './labels';

/** Labels of copies: what they look like, and the PDF. */
export const labelRoutes = (services: Services): Route[] => [
  route(api.labels.preview, ({ body }) => previewLabels(services, body)),
  route(api.labels.print, async ({ body, res }) => {
    const pdf = await printLabels(services, body);
    res.setHeader('content-disposition', 'attachment; filename="labels.pdf"');
    res.type('application/pdf').send(pdf);
    return undefined;
  }),
];
