export { liveStream, standing } from './stream';
