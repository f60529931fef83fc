export {
  lightInWords,
  FIGURE_GROUPS,
  figureNamesOf,
  figureText,
  figureWords,
  namesOf,
  type FigureGroup,
  type FigureNames,
  type FigureWords,
} from './names';
