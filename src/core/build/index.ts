/** From the circuit to what a person builds: run sheet, colours, parts list, loom drawing. */
export * from "./runsheet";
export * from "./colours";
export * from "./partslist";
export * from "./loom";
export * from "./position";
export * from "./addresses";
export * from "./lists";
export * from "./breadboard";
export * from "./placed";
export * from "./names";
export * from "./compare";
export * from "./labels";
