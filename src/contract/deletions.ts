export type { Deletable, DeletedCount, Deletion } from '../data';
