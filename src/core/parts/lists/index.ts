/** Taking over somebody's parts list: reading it, matching it to the catalogue, asking only about what is unclear. */
export * from "./read-list";
export * from "./match";
