/** The shared lines as a whole: I2C, SPI and serial, each with the numbers that its rules and its views rest on. */
export * from "./i2c";
export * from "./spi";
export * from "./uart";
export * from "./chains";
export { lineLoad, wireOf, type LineLoad } from "./wires";
export { busInstances, busOfPin } from "./instances";
