export * from "./sizes";
export * from "./spots";
export * from "./layout";
export { breadboardDrawing } from "./shapes";
export { boardProblem, type BoardProblem } from "./problem";
export { placeAll, placeOne, type Placed } from "./place";
export { footprintOf, type Footprint } from "./footprints";

export { layoutInProject, propose } from "./propose";
