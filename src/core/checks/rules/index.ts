/** All rules: one file each, its cases beside it, one line here. Their order is that of the handbook. */
import type { Rule } from "../types";
import { adcImpedance } from "./adc-impedance";
import { adcOneSided } from "./adc-one-sided";
import { adcRange } from "./adc-range";
import { boardDriver } from "./board-driver";
import { boardNativeUsb } from "./board-native-usb";
import { boardSolder } from "./board-solder";
import { breadboardOpen } from "./breadboard-open";
import { breadboardPlace } from "./breadboard-place";
import { breadboardRoom } from "./breadboard-room";
import { breadboardRow } from "./breadboard-row";
import { bridgeRange } from "./bridge-range";
import { busTermination } from "./bus-termination";
import { companionNotPlanned } from "./companion-not-planned";
import { contactRating } from "./contact-rating";
import { contactUnchanged } from "./contact-unchanged";
import { currentChip } from "./current-chip";
import { currentLed } from "./current-led";
import { currentPin } from "./current-pin";
import { i2cAddressClash } from "./i2c-address-clash";
import { i2cCapacitance } from "./i2c-capacitance";
import { i2cClock } from "./i2c-clock";
import { i2cPullupMissing } from "./i2c-pullup-missing";
import { i2cPullupStrong } from "./i2c-pullup-strong";
import { i2cReservedAddress } from "./i2c-reserved-address";
import { i2cRiseTime } from "./i2c-rise-time";
import { ledDataResistor } from "./led-data-resistor";
import { ledHeadroom } from "./led-headroom";
import { ledNoResistor } from "./led-no-resistor";
import { ledParallel } from "./led-parallel";
import { backfeed } from "./level-backfeed";
import { commonMode } from "./level-common-mode";
import { highLow } from "./level-high-low";
import { lowHigh } from "./level-low-high";
import { overdrive } from "./level-overdrive";
import { overdriveAny } from "./level-overdrive-any";
import { slow } from "./level-slow";
import { thinMargin } from "./level-thin-margin";
import { loadBaseDrive } from "./load-base-drive";
import { driverLoss } from "./load-driver-loss";
import { loadFollower } from "./load-follower";
import { loadGateDrive } from "./load-gate-drive";
import { loadNeedsDriver } from "./load-needs-driver";
import { loadNoFlyback } from "./load-no-flyback";
import { loadSwitchLimit } from "./load-switch-limit";
import { loadVoltage } from "./load-voltage";
import { matrixGhosting } from "./matrix-ghosting";
import { netContention } from "./net-contention";
import { contentionRail } from "./net-contention-rail";
import { gateShut } from "./net-gate-shut";
import { pairCrossed } from "./net-pair-crossed";
import { netDangling } from "./net-dangling";
import { netFloating } from "./net-floating";
import { netFloatingAtReset } from "./net-floating-at-reset";
import { netOnAtPowerOn } from "./net-on-at-power-on";
import { netOneWay } from "./net-one-way";
import { openInput } from "./net-open-input";
import { stuck } from "./net-stuck";
import { netUndriven } from "./net-undriven";
import { onewireParasitic } from "./onewire-parasitic";
import { partDataMissing } from "./part-data-missing";
import { partOwnData } from "./part-own-data";
import { partPrint } from "./part-print";
import { partTemperature } from "./part-temperature";
import { partRating } from "./part-rating";
import { partReversed } from "./part-reversed";
import { firmwareSleep } from "./firmware-sleep";
import { firmwareCapability, firmwareMemory, firmwareRule } from "./firmware";
import { partSolder } from "./part-solder";
import { partUnwired } from "./part-unwired";
import { pinAdcRadio } from "./pin-adc-radio";
import { busSplit } from "./pin-bus-split";
import { pinCapability } from "./pin-capability";
import { pinDuplicate } from "./pin-duplicate";
import { pinHazardsRules } from "./pin-hazards";
import { pinIspShared } from "./pin-isp-shared";
import { pinSharedRules } from "./pin-shared";
import { pinStrapping } from "./pin-strapping";
import { arrives } from "./power-arrives";
import { powerBrownout } from "./power-brownout";
import { powerBulk } from "./power-bulk";
import { powerCellTemperature } from "./power-cell-temperature";
import { powerCharger } from "./power-charger";
import { powerDecoupling } from "./power-decoupling";
import { powerDropout } from "./power-dropout";
import { powerGroundJoined } from "./power-ground-joined";
import { powerGroundNotCommon } from "./power-ground-not-common";
import { inrush } from "./power-inrush";
import { mains } from "./power-mains";
import { powerKeepsOn } from "./power-keeps-on";
import { powerNoGround } from "./power-no-ground";
import { noReturn } from "./power-no-return";
import { powerNoSupply } from "./power-no-supply";
import { powerNoSwitch } from "./power-no-switch";
import { powerOverload } from "./power-overload";
import { powerPolarity } from "./power-polarity";
import { polarityProtection } from "./power-polarity-protection";
import { powerRange } from "./power-range";
import { powerRegulatorHeat } from "./power-regulator-heat";
import { returnPath } from "./power-return-path";
import { powerShort } from "./power-short";
import { shortByContact } from "./power-short-by-contact";
import { powerShortSources } from "./power-short-sources";
import { sleep } from "./power-sleep";
import { powerSun } from "./power-sun";
import { powerThroughBoard } from "./power-through-board";
import { powerTight } from "./power-tight";
import { twoRegulators } from "./power-two-regulators";
import { powerTwoSources } from "./power-two-sources";
import { spiClock } from "./spi-clock";
import { spiCsShared } from "./spi-cs-shared";
import { spiMisoHeld } from "./spi-miso-held";
import { spiMode } from "./spi-mode";
import { spiNoSelect } from "./spi-no-select";
import { spiOwnSelect } from "./spi-own-select";
import { uartBaud } from "./uart-baud";
import { uartNotCrossed } from "./uart-not-crossed";
import { uartShared } from "./uart-shared";
import { wireAmpacity } from "./wire-ampacity";
import { wireDrop } from "./wire-drop";
import { shortCurrent } from "./wire-short-current";

export const RULES: readonly Rule[] = [
  // Pins: what a board's pin can do, what else hangs on it.
  pinStrapping,
  pinIspShared,
  boardSolder,
  boardDriver,
  boardNativeUsb,
  pinCapability,
  pinDuplicate,
  pinAdcRadio,
  ...pinSharedRules,
  ...pinHazardsRules,
  // One driver against one reader: thresholds, ceilings, and what a dead part is fed.
  lowHigh,
  highLow,
  thinMargin,
  overdrive,
  backfeed,
  // Current out of pins, through lights.
  ledNoResistor,
  currentPin,
  currentLed,
  currentChip,
  ledHeadroom,
  ledParallel,
  // Motors, coils, and what switches them.
  loadNeedsDriver,
  loadNoFlyback,
  loadGateDrive,
  loadBaseDrive,
  loadFollower,
  loadSwitchLimit,
  loadVoltage,
  // Legs the wrong way round.
  partReversed,
  // Buses.
  i2cAddressClash,
  i2cReservedAddress,
  i2cPullupMissing,
  i2cPullupStrong,
  i2cRiseTime,
  i2cCapacitance,
  i2cClock,
  spiMisoHeld,
  spiCsShared,
  spiClock,
  spiMode,
  spiNoSelect,
  spiOwnSelect,
  uartNotCrossed,
  uartShared,
  uartBaud,
  onewireParasitic,
  // Converters and lines.
  adcRange,
  adcOneSided,
  adcImpedance,
  matrixGhosting,
  bridgeRange,
  busTermination,
  ledDataResistor,
  // Contacts.
  contactUnchanged,
  // Supplies.
  powerOverload,
  powerTight,
  powerNoSupply,
  powerNoGround,
  powerGroundNotCommon,
  powerGroundJoined,
  powerRange,
  powerShort,
  powerTwoSources,
  powerShortSources,
  powerThroughBoard,
  powerCharger,
  powerKeepsOn,
  powerSun,
  powerBrownout,
  powerNoSwitch,
  powerPolarity,
  powerRegulatorHeat,
  powerDropout,
  powerBulk,
  powerDecoupling,
  wireAmpacity,
  wireDrop,
  // Nets and parts as a whole.
  netUndriven,
  netContention,
  netOneWay,
  netFloating,
  netFloatingAtReset,
  netOnAtPowerOn,
  gateShut,
  pairCrossed,
  netDangling,
  partUnwired,
  partDataMissing,
  partOwnData,
  partPrint,
  partTemperature,
  companionNotPlanned,
  // Where it is built, and where it lives.
  breadboardRow,
  breadboardRoom,
  breadboardOpen,
  breadboardPlace,
  powerCellTemperature,
  partSolder,
  firmwareMemory,
  firmwareCapability,
  firmwareRule,
  firmwareSleep,
  // Over the solved circuit: every pin and element, whoever asks for it.
  overdriveAny,
  commonMode,
  contentionRail,
  openInput,
  stuck,
  busSplit,
  slow,
  shortByContact,
  contactRating,
  partRating,
  mains,
  noReturn,
  returnPath,
  twoRegulators,
  arrives,
  inrush,
  shortCurrent,
  polarityProtection,
  sleep,
  driverLoss,
];
