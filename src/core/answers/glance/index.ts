export { glanceRows, orderedBy, type GlanceCell, type GlanceInput, type GlanceRow } from './glance';
