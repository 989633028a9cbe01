export {
  type Film,
  type FilmFacts,
  type FilmSet,
  type FilmSettings,
  type LineMark,
  layOutFilms,
  MARKS,
  type Target,
} from "./lay-out.ts";
