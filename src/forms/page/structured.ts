import type { ReportModel } from '../../core/text/report';

/** The report for machines: its data as a `Dataset`, its answer as a `Review` (schema.org, JSON-LD). */
export function structured(model: ReportModel): unknown {
  const answer = model.sections
    .flatMap(({ blocks }) => blocks)
    .flatMap((block) => (block.kind === 'answer' ? block.sentences.map(({ text }) => text) : []));
  const author =
    model.author === null ? undefined : { '@type': 'Organization', name: model.author };
  const machines = [...new Set(model.contenders.map((mark) => mark.machineName))];
  const dataset = {
    '@type': 'Dataset',
    '@id': '#dataset',
    name: `${model.title}: data`,
    description: model.question ?? model.title,
    dateCreated: model.frozen_at,
    version: String(model.number),
    ...(author && { creator: author }),
    distribution: {
      '@type': 'DataDownload',
      encodingFormat: 'application/zip',
      contentUrl: 'data.zip',
      sha256: model.data.sha256,
    },
    variableMeasured: model.charts.map(({ title, unit }) => ({
      '@type': 'PropertyValue',
      name: title,
      ...(unit !== '' && { unitText: unit }),
    })),
  };
  const review = {
    '@type': 'Review',
    name: model.title,
    datePublished: model.frozen_at,
    ...(answer.length > 0 && { reviewBody: answer.join(' ') }),
    ...(author && { author }),
    itemReviewed: machines.map((name) => ({ '@type': 'Product', name })),
    isBasedOn: { '@id': '#dataset' },
  };
  return { '@context': 'https://schema.org', '@graph': [dataset, review] };
}
