import { renderToStaticMarkup } from 'react-dom/server';
import type { ReportModel } from '../../core/text/report';
import { ReportPage } from './ReportPage';

/** A report as the text of an HTML page. */
export const pageOf = (model: ReportModel): string =>
  `<!doctype html>\n${renderToStaticMarkup(<ReportPage model={model} />)}\n`;
