"use client";
import type { PowerView } from "@/workers/power-view";
import { formatOhm } from "@/core/quantity/units";
import { columnsOf, Table, type Col } from "@/ui/shared/table";
import { useProject } from "@/ui/state/project";
import { I2cChart } from "./i2c-chart";
import { share } from "./words";
import { Select } from "@/ui/shared/select";
import { Fold } from "@/ui/shared/fold";
import { Label } from "@/ui/shared/label";

const kHz = (hz: number) => (hz >= 1e6 ? `${Number((hz / 1e6).toFixed(2))} MHz` : `${hz / 1000} kHz`);
const pct = (x: number) => `${x > 0 ? "+" : ""}${(x * 100).toFixed(1)} %`;

type I2cMember = PowerView["i2c"][number]["members"][number];
type SpiMember = PowerView["spi"][number]["members"][number];
type Rate = PowerView["baud"][number]["rows"][number];
/** From where a receiver may miss a bit, and from where it will. */
const off = (error: number) =>
  Math.abs(error) > 0.04 ? "font-bold text-stop" : Math.abs(error) > 0.02 ? "font-bold text-risk" : "";

const I2C_COLUMNS = columnsOf<I2cMember>([
  { head: "part", by: (m) => m.label, show: (m) => m.label },
  { head: "address", by: (m) => m.addresses.join(), show: (m) => m.addresses.join(", ") || "–", look: "num" },
  { head: "up to", by: (m) => m.max_Hz, show: (m) => kHz(m.max_Hz), look: "num" },
  {
    head: "works at",
    by: (m) => m.V ?? 0,
    show: (m) => (m.V === null ? "not fed" : `${m.V.toFixed(1)} V`),
    look: "num",
  },
]);
const SPI_COLUMNS: readonly Col<SpiMember>[] = [
  { head: "part", by: (m) => m.label, show: (m) => m.label },
  { head: "mode", by: (m) => m.mode, show: (m) => m.mode, look: "num" },
  { head: "part takes", by: (m) => m.max_Hz, show: (m) => kHz(m.max_Hz), look: "num" },
  { head: "leads", by: (m) => m.cm, show: (m) => `${m.cm} cm`, look: "num" },
  { head: "run at", by: (m) => m.clock_Hz, show: (m) => kHz(m.clock_Hz), look: "num" },
  { head: "select", by: (m) => m.select, show: (m) => m.select, look: "num" },
];
const UART_COLUMNS = columnsOf<PowerView["uart"][number]>([
  { head: "part", by: (u) => u.label, show: (u) => u.label },
  { head: "port", by: (u) => u.bus ?? "", show: (u) => u.bus ?? "–", look: "num" },
  {
    head: "wires",
    show: (u) => `${u.lines.join(", ")}${u.crossed ? "" : " not crossed"}`,
    look: (u) => `num ${u.crossed ? "" : "font-bold text-stop"}`,
  },
  { head: "asked", by: (u) => u.baud, show: (u) => u.baud, look: "num" },
  { head: "really", by: (u) => u.real, show: (u) => u.real.toFixed(0), look: "num" },
  { head: "off by", by: (u) => Math.abs(u.error), show: (u) => pct(u.error), look: "num" },
  {
    head: "worst, both ends",
    by: (u) => u.total,
    show: (u) => `${(u.total * 100).toFixed(1)} %`,
    look: (u) => `num ${off(u.total)}`,
  },
]);
const RATE_COLUMNS = columnsOf<Rate>([
  { head: "rate", by: (r) => r.baud, show: (r) => r.baud, look: "num" },
  { head: "really", by: (r) => r.real, show: (r) => r.real.toFixed(0), look: "num" },
  { head: "off by", by: (r) => Math.abs(r.error), show: (r) => pct(r.error), look: (r) => `num ${off(r.error)}` },
  { head: "divider", show: (r) => r.how, look: "num" },
]);

function Clock({
  host,
  bus,
  now,
  asked,
  choices,
}: {
  host: string;
  bus: string;
  now: number;
  asked: boolean;
  choices: number[];
}) {
  const { edit } = useProject();
  return (
    <Label className="inline-flex items-center gap-2 text-sm">
      clock
      <Select
        label="clock"
        value={asked ? String(now) : ""}
        options={[
          { value: "", name: `as usual${asked ? "" : ` (${kHz(now)})`}` },
          ...[...new Set([...choices, ...(asked ? [now] : [])])].map((hz) => ({ value: String(hz), name: kHz(hz) })),
        ]}
        onChange={(v) => void edit({ type: "setBus", host, bus, clock_Hz: v ? Number(v) : null })}
      />
    </Label>
  );
}

function I2c({ b }: { b: PowerView["i2c"][number] }) {
  const inside = b.ohm >= b.min_ohm && b.ohm <= b.max_ohm;
  return (
    <section aria-label={`I2C ${b.name}`} className="mt-3 border-t border-line pt-2">
      <div className="flex flex-wrap items-baseline justify-between gap-x-4">
        <h2 className="text-lg">
          I2C <span className="num">{b.name}</span>
        </h2>
        {b.host && b.bus && (
          <Clock host={b.host} bus={b.bus} now={b.clock_Hz} asked={b.asked} choices={[100_000, 400_000, 1_000_000]} />
        )}
      </div>
      <p>
        Pull-ups together{" "}
        <strong className={`num ${inside ? "" : "text-stop"}`}>
          {Number.isFinite(b.ohm) ? formatOhm(b.ohm) : "none"}
        </strong>
        ; the window is <span className="num">{formatOhm(b.min_ohm)}</span> (3 mA at {b.V.toFixed(2)} V) to{" "}
        <span className="num">{formatOhm(b.max_ohm)}</span> ({Math.round(b.C_pF)} pF at {kHz(b.clock_Hz)}). Lines rise
        in{" "}
        <span className="num">
          {Number.isFinite(b.rise_ns) ? `${Math.round(b.rise_ns)} ns` : "no time: nothing lifts them"}
        </span>
        , {b.rise_max_ns} ns allowed.
      </p>
      <div className="mt-2 grid gap-x-8 gap-y-2 xl:grid-cols-2">
        <I2cChart b={b} />
        <div>
          <Table label={`Parts on ${b.name}`} rows={b.members} rowId={(m) => m.ref} columns={I2C_COLUMNS} />
          <p className="mt-1 text-sm text-soft">
            Pull-ups: {b.pulls.map((p) => `${formatOhm(p.ohm)} to ${p.rail} (${p.ref})`).join(", ") || "none"}.
            Capacitance: pins {Math.round(b.pins_pF)}, {b.cm} cm of wire {Math.round(b.wires_pF)}, breadboard{" "}
            {Math.round(b.breadboard_pF)} pF.
          </p>
        </div>
      </div>
    </section>
  );
}

function Spi({ b }: { b: PowerView["spi"][number] }) {
  return (
    <section aria-label={`SPI ${b.name}`} className="mt-4 border-t border-line pt-2">
      <div className="flex flex-wrap items-baseline justify-between gap-x-4">
        <h2 className="text-lg">
          SPI <span className="num">{b.name}</span>
        </h2>
        {b.host && b.bus && (
          <Clock
            host={b.host}
            bus={b.bus}
            now={b.asked_Hz ?? b.common_Hz}
            asked={b.asked_Hz !== null}
            choices={[1e6, 4e6, 8e6, 20e6]}
          />
        )}
      </div>
      <p>
        One clock for all: <strong className="num">{kHz(b.common_Hz)}</strong>.{" "}
        {b.switchesMode
          ? "The parts want different modes: set mode and clock with every transaction."
          : "All use one mode: no switching."}
      </p>
      <Table
        label={`Parts on ${b.name}`}
        rows={b.members}
        rowId={(m) => `${m.ref}${m.select}`}
        columns={columnsOf<SpiMember>([
          ...SPI_COLUMNS,
          {
            head: "data-out when not selected",
            show: (m) => m.out,
            look: (m) => (m.out === "keeps driving" && b.members.length > 1 ? "font-bold text-stop" : ""),
          },
        ])}
      />
    </section>
  );
}

function Serial({ power }: { power: PowerView }) {
  return (
    <section aria-label="Serial ports" className="mt-4 border-t border-line pt-2">
      <h2 className="text-lg">Serial ports</h2>
      {power.uart.length > 0 && (
        <Table label="Serial ports" className="mb-2" rows={power.uart} rowId={(u) => u.ref} columns={UART_COLUMNS} />
      )}
      {power.baud.map((h) => (
        <Fold
          key={h.host}
          open={power.uart.length > 0}
          title={`What ${h.label} makes of the usual rates (${h.chip} at ${kHz(h.clock_Hz)}${h.tolerance > 0.001 ? `, its own oscillator, ±${(h.tolerance * 100).toFixed(0)} % besides` : ""})`}
        >
          <Table label="Usual rates" rows={h.rows} rowId={(r) => String(r.baud)} columns={RATE_COLUMNS} />
        </Fold>
      ))}
    </section>
  );
}

/** The shared lines: I2C window, SPI table, serial rates, light chains and one-wire budgets. */
export function Buses({ power }: { power: PowerView }) {
  const none =
    !power.i2c.length && !power.spi.length && !power.uart.length && !power.chains.length && !power.oneWires.length;
  return (
    <>
      {none && <p>No bus is planned yet. Parts that share lines show their addresses, clocks and margins here.</p>}
      {power.i2c.map((b) => (
        <I2c key={b.id} b={b} />
      ))}
      {power.spi.map((b) => (
        <Spi key={b.id} b={b} />
      ))}
      {power.chains.length > 0 && (
        <section aria-label="Light chains" className="mt-4 border-t border-line pt-2">
          <h2 className="text-lg">Light chains</h2>
          {power.chains.map((x) => (
            <p key={x.pin}>
              <span className="num">{x.pin}</span>: {x.names}, <span className="num">{x.pixels}</span> lights. One
              picture takes <span className="num">{x.frame_ms.toFixed(2)} ms</span> and{" "}
              <span className="num">{x.ram_B} bytes</span>, {x.ram_share < 0.01 ? "under 1 %" : share(x.ram_share)} of
              the chip&apos;s memory.{" "}
              {x.lost_chars > 0 &&
                `On chips that hold interrupts meanwhile, a serial port at 115200 loses up to ${x.lost_chars} characters.`}
            </p>
          ))}
        </section>
      )}
      {power.oneWires.length > 0 && (
        <section aria-label="One-wire lines" className="mt-4 border-t border-line pt-2">
          <h2 className="text-lg">One-wire lines</h2>
          {power.oneWires.map((x) => (
            <p key={x.pin}>
              <span className="num">{x.pin}</span>: {x.names}. Pull-up{" "}
              <span className="num">{Number.isFinite(x.ohm) ? formatOhm(x.ohm) : "none"}</span>, a sensor sinks{" "}
              <span className={`num ${x.sink_mA > 4 ? "font-bold text-stop" : ""}`}>{x.sink_mA.toFixed(1)} mA</span> of
              4 mA, {x.cm} cm of wire, one round in <span className="num">{x.round_s.toFixed(2)} s</span>.
            </p>
          ))}
        </section>
      )}
      <Serial power={power} />
    </>
  );
}
