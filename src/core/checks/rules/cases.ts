/** The cases of all rules: each in a file beside its rule. Not used by the product. */
import type { Case } from "../cases/build";
import { adcImpedanceCases } from "./adc-impedance.cases";
import { adcOneSidedCases } from "./adc-one-sided.cases";
import { adcRangeCases } from "./adc-range.cases";
import { boardDriverCases } from "./board-driver.cases";
import { boardNativeUsbCases } from "./board-native-usb.cases";
import { boardSolderCases } from "./board-solder.cases";
import { breadboardOpenCases } from "./breadboard-open.cases";
import { breadboardPlaceCases } from "./breadboard-place.cases";
import { breadboardRoomCases } from "./breadboard-room.cases";
import { breadboardRowCases } from "./breadboard-row.cases";
import { bridgeRangeCases } from "./bridge-range.cases";
import { busTerminationCases } from "./bus-termination.cases";
import { companionNotPlannedCases } from "./companion-not-planned.cases";
import { contactRatingCases } from "./contact-rating.cases";
import { contactUnchangedCases } from "./contact-unchanged.cases";
import { currentChipCases } from "./current-chip.cases";
import { currentLedCases } from "./current-led.cases";
import { currentPinCases } from "./current-pin.cases";
import { i2cAddressClashCases } from "./i2c-address-clash.cases";
import { i2cCapacitanceCases } from "./i2c-capacitance.cases";
import { i2cClockCases } from "./i2c-clock.cases";
import { i2cPullupMissingCases } from "./i2c-pullup-missing.cases";
import { i2cPullupStrongCases } from "./i2c-pullup-strong.cases";
import { i2cReservedAddressCases } from "./i2c-reserved-address.cases";
import { i2cRiseTimeCases } from "./i2c-rise-time.cases";
import { ledDataResistorCases } from "./led-data-resistor.cases";
import { ledHeadroomCases } from "./led-headroom.cases";
import { ledNoResistorCases } from "./led-no-resistor.cases";
import { ledParallelCases } from "./led-parallel.cases";
import { levelBackfeedCases } from "./level-backfeed.cases";
import { commonModeCases } from "./level-common-mode.cases";
import { levelHighLowCases } from "./level-high-low.cases";
import { levelLowHighCases } from "./level-low-high.cases";
import { levelOverdriveCases } from "./level-overdrive.cases";
import { overdriveAnyCases } from "./level-overdrive-any.cases";
import { slowCases } from "./level-slow.cases";
import { levelThinMarginCases } from "./level-thin-margin.cases";
import { loadBaseDriveCases } from "./load-base-drive.cases";
import { driverLossCases } from "./load-driver-loss.cases";
import { loadFollowerCases } from "./load-follower.cases";
import { loadGateDriveCases } from "./load-gate-drive.cases";
import { loadNeedsDriverCases } from "./load-needs-driver.cases";
import { loadNoFlybackCases } from "./load-no-flyback.cases";
import { loadSwitchLimitCases } from "./load-switch-limit.cases";
import { loadVoltageCases } from "./load-voltage.cases";
import { matrixGhostingCases } from "./matrix-ghosting.cases";
import { netContentionCases } from "./net-contention.cases";
import { contentionRailCases } from "./net-contention-rail.cases";
import { gateShutCases } from "./net-gate-shut.cases";
import { pairCrossedCases } from "./net-pair-crossed.cases";
import { netDanglingCases } from "./net-dangling.cases";
import { netFloatingCases } from "./net-floating.cases";
import { netFloatingAtResetCases } from "./net-floating-at-reset.cases";
import { netOnAtPowerOnCases } from "./net-on-at-power-on.cases";
import { netOneWayCases } from "./net-one-way.cases";
import { openInputCases } from "./net-open-input.cases";
import { stuckCases } from "./net-stuck.cases";
import { netUndrivenCases } from "./net-undriven.cases";
import { batteryNoteCases } from "./notes.cases";
import { onewireParasiticCases } from "./onewire-parasitic.cases";
import { partDataMissingCases } from "./part-data-missing.cases";
import { partOwnDataCases } from "./part-own-data.cases";
import { partPrintCases } from "./part-print.cases";
import { partTemperatureCases } from "./part-temperature.cases";
import { partRatingCases } from "./part-rating.cases";
import { partReversedCases } from "./part-reversed.cases";
import { firmwareCases } from "./firmware.cases";
import { partSolderCases } from "./part-solder.cases";
import { partUnwiredCases } from "./part-unwired.cases";
import { pinAdcRadioCases } from "./pin-adc-radio.cases";
import { pinBootlogCases } from "./pin-bootlog.cases";
import { busSplitCases } from "./pin-bus-split.cases";
import { pinCapabilityCases } from "./pin-capability.cases";
import { pinDuplicateCases } from "./pin-duplicate.cases";
import { pinInterruptsCases } from "./pin-interrupts.cases";
import { pinIspSharedCases } from "./pin-isp-shared.cases";
import { pinOnboardCases } from "./pin-onboard.cases";
import { pinPadCases } from "./pin-pad.cases";
import { pinReservedCases } from "./pin-reserved.cases";
import { pinResetCases } from "./pin-reset.cases";
import { pinStrappingCases } from "./pin-strapping.cases";
import { pinTimerConflictCases } from "./pin-timer-conflict.cases";
import { pinUsbSerialCases } from "./pin-usb-serial.cases";
import { arrivesCases } from "./power-arrives.cases";
import { powerBrownoutCases } from "./power-brownout.cases";
import { powerBulkCases } from "./power-bulk.cases";
import { powerCellTemperatureCases } from "./power-cell-temperature.cases";
import { powerChargerCases } from "./power-charger.cases";
import { powerKeepsOnCases } from "./power-keeps-on.cases";
import { powerSunCases } from "./power-sun.cases";
import { powerDecouplingCases } from "./power-decoupling.cases";
import { powerDropoutCases } from "./power-dropout.cases";
import { powerGroundJoinedCases } from "./power-ground-joined.cases";
import { powerGroundNotCommonCases } from "./power-ground-not-common.cases";
import { inrushCases } from "./power-inrush.cases";
import { mainsCases } from "./power-mains.cases";
import { powerNoGroundCases } from "./power-no-ground.cases";
import { noReturnCases } from "./power-no-return.cases";
import { powerNoSupplyCases } from "./power-no-supply.cases";
import { powerNoSwitchCases } from "./power-no-switch.cases";
import { powerOverloadCases } from "./power-overload.cases";
import { powerPolarityCases } from "./power-polarity.cases";
import { powerRangeCases } from "./power-range.cases";
import { powerRegulatorHeatCases } from "./power-regulator-heat.cases";
import { returnPathCases } from "./power-return-path.cases";
import { powerShortCases } from "./power-short.cases";
import { shortByContactCases } from "./power-short-by-contact.cases";
import { powerThroughBoardCases } from "./power-through-board.cases";
import { powerTightCases } from "./power-tight.cases";
import { twoRegulatorsCases } from "./power-two-regulators.cases";
import { powerTwoSourcesCases } from "./power-two-sources.cases";
import { spiClockCases } from "./spi-clock.cases";
import { spiCsSharedCases } from "./spi-cs-shared.cases";
import { spiMisoHeldCases } from "./spi-miso-held.cases";
import { spiModeCases } from "./spi-mode.cases";
import { spiNoSelectCases } from "./spi-no-select.cases";
import { spiOwnSelectCases } from "./spi-own-select.cases";
import { switchedGroundCases } from "./switched-ground.cases";
import { uartBaudCases } from "./uart-baud.cases";
import { uartNotCrossedCases } from "./uart-not-crossed.cases";
import { uartSharedCases } from "./uart-shared.cases";
import { wireAmpacityCases } from "./wire-ampacity.cases";
import { wireDropCases } from "./wire-drop.cases";

export const cases: Case[] = [
  ...levelLowHighCases,
  ...levelHighLowCases,
  ...levelThinMarginCases,
  ...levelOverdriveCases,
  ...levelBackfeedCases,
  ...netContentionCases,
  ...netUndrivenCases,
  ...netFloatingCases,
  ...netFloatingAtResetCases,
  ...netOnAtPowerOnCases,
  ...gateShutCases,
  ...pairCrossedCases,
  ...netDanglingCases,
  ...partUnwiredCases,
  ...companionNotPlannedCases,
  ...pinCapabilityCases,
  ...pinDuplicateCases,
  ...pinPadCases,
  ...pinReservedCases,
  ...pinStrappingCases,
  ...pinUsbSerialCases,
  ...pinOnboardCases,
  ...pinAdcRadioCases,
  ...pinTimerConflictCases,
  ...pinResetCases,
  ...pinBootlogCases,
  ...pinIspSharedCases,
  ...boardNativeUsbCases,
  ...boardSolderCases,
  ...partSolderCases,
  ...firmwareCases,
  ...boardDriverCases,
  ...ledNoResistorCases,
  ...currentPinCases,
  ...currentLedCases,
  ...currentChipCases,
  ...ledHeadroomCases,
  ...ledParallelCases,
  ...partReversedCases,
  ...loadNeedsDriverCases,
  ...loadNoFlybackCases,
  ...loadGateDriveCases,
  ...loadBaseDriveCases,
  ...loadFollowerCases,
  ...loadSwitchLimitCases,
  ...loadVoltageCases,
  ...i2cAddressClashCases,
  ...i2cPullupMissingCases,
  ...i2cPullupStrongCases,
  ...i2cRiseTimeCases,
  ...i2cCapacitanceCases,
  ...i2cClockCases,
  ...spiMisoHeldCases,
  ...uartNotCrossedCases,
  ...uartBaudCases,
  ...netOneWayCases,
  ...onewireParasiticCases,
  ...adcRangeCases,
  ...adcOneSidedCases,
  ...contactUnchangedCases,
  ...adcImpedanceCases,
  ...matrixGhostingCases,
  ...ledDataResistorCases,
  ...bridgeRangeCases,
  ...busTerminationCases,
  ...powerOverloadCases,
  ...powerTightCases,
  ...powerNoSupplyCases,
  ...powerNoGroundCases,
  ...powerGroundNotCommonCases,
  ...powerGroundJoinedCases,
  ...powerRangeCases,
  ...powerShortCases,
  ...powerTwoSourcesCases,
  ...powerThroughBoardCases,
  ...powerBrownoutCases,
  ...powerCellTemperatureCases,
  ...powerNoSwitchCases,
  ...powerPolarityCases,
  ...powerRegulatorHeatCases,
  ...powerDropoutCases,
  ...powerBulkCases,
  ...powerChargerCases,
  ...powerKeepsOnCases,
  ...powerSunCases,
  ...powerDecouplingCases,
  ...wireAmpacityCases,
  ...wireDropCases,
  ...pinInterruptsCases,
  ...i2cReservedAddressCases,
  ...partDataMissingCases,
  ...partOwnDataCases,
  ...partPrintCases,
  ...partTemperatureCases,
  ...spiModeCases,
  ...spiCsSharedCases,
  ...spiClockCases,
  ...spiNoSelectCases,
  ...spiOwnSelectCases,
  ...uartSharedCases,
  ...breadboardRowCases,
  ...breadboardRoomCases,
  ...breadboardOpenCases,
  ...breadboardPlaceCases,
  ...contactRatingCases,
  ...commonModeCases,
  ...overdriveAnyCases,
  ...slowCases,
  ...driverLossCases,
  ...contentionRailCases,
  ...openInputCases,
  ...stuckCases,
  ...busSplitCases,
  ...batteryNoteCases,
  ...partRatingCases,
  ...arrivesCases,
  ...inrushCases,
  ...mainsCases,
  ...noReturnCases,
  ...returnPathCases,
  ...shortByContactCases,
  ...twoRegulatorsCases,
  ...switchedGroundCases,
];
