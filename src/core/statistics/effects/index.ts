export { effectsOf, type Effects, type Response } from './effects';
export { typeTwo, type Effect, type Observation, type Term } from './type-two';
