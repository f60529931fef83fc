export * from './mapping';
