/** What to lay out and to buy: spares by kind, substitutes, wires, tools. */
export * from "./spares";
export * from "./kit";
export * from "./substitutes";
export * from "./wires";
export * from "./cuts";
export * from "./sums";
export * from "./tools";
