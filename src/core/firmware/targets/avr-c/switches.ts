/** Parts with one pin that switches something. */
export const SWITCHES: ReadonlySet<string> = new Set([
  "discrete/nmos-ao3400",
  "discrete/nmos-irlz44n",
  "discrete/nmos-2n7000",
  "discrete/npn-2n2222",
  "discrete/npn-bc547",
  "discrete/npn-tip120",
  "module/buzzer-active",
  "module/mosfet-switch",
  "module/optocoupler-pc817",
  "module/relay-1",
]);
