/** Parts that fixes may bring into any project: an app that loads definitions on demand must have these at hand. */
export const FIX_PARTS: readonly string[] = [
  "discrete/resistor",
  "discrete/capacitor",
  "discrete/electrolytic",
  "discrete/diode-1n4007",
  "discrete/diode-1n5819",
  "discrete/nmos-ao3400",
  "discrete/nmos-irlz44n",
  "discrete/toggle",
  "module/buffer-74ahct125",
  "module/buffer-74hc4050",
  "module/shifter-bss138-4",
  "module/tca9548a",
  "supply/adapter-12v-2a",
  "supply/adapter-5v-10a",
  "supply/adapter-5v-2a",
  "supply/usb-port",
];
