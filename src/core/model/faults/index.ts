export { codeOf, messageOf } from './caught';
export { refused, WrongInputError, type OrRefused, type Refused } from './wrong-input';
