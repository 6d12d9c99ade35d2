/** Parts that are often put into a wire, for a short list to choose from; any other that has two ends will do. */
export const BETWEEN_PARTS: readonly { id: string; name: string }[] = [
  { id: "discrete/resistor", name: "resistor" },
  { id: "discrete/toggle", name: "switch" },
  { id: "discrete/button", name: "button" },
  { id: "discrete/reed", name: "reed contact" },
  { id: "discrete/diode-1n5819", name: "diode, small drop" },
  { id: "discrete/diode-1n4007", name: "diode, 1 A" },
  { id: "discrete/potentiometer", name: "potentiometer" },
  { id: "module/ina219", name: "current meter" },
  { id: "discrete/nmos-irlz44n", name: "transistor stage (MOSFET)" },
  { id: "discrete/npn-2n2222", name: "transistor stage (NPN)" },
  { id: "module/isolator-2ch", name: "isolator" },
  { id: "module/shifter-bss138-4", name: "level shifter" },
  { id: "module/buffer-74ahct125", name: "buffer" },
];
