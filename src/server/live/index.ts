export { Newsroom } from './newsroom';
export { liveStream, standing } from './stream';
