export type { PhotosData, Proposal, ShownMeasure, ShownPhoto, Views } from '../server/photos';
