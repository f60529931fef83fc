export {
  CARD_SIZES,
  cardSubjects,
  drawCard,
  drawFigure,
  SMALLEST,
  type CardLook,
  type CardSize,
  type CardSubject,
  type CardTheme,
} from './cards/card';
export { markdownOf } from './markdown';
export { pageOf } from './page/page';
