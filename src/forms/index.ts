export {
  cardSubjects,
  drawCard,
  drawFigure,
  SMALLEST,
  type CardLook,
  type CardSubject,
} from './cards/card';
export { markdownOf } from './markdown';
export { pageOf } from './page/page';
