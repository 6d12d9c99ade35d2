"use client";
import { useFormContext, useWatch } from "react-hook-form";
import type { OwnDraft } from "@/core/parts/own";
import { OWN_COMPANIONS, OWN_FEEDS, OWN_LAYOUTS } from "@/core/parts/own/roles";
import { Field } from "./field";
import { choices, Pick, PickPin, Rows, Tick } from "./rows";

interface Told {
  problem(field: string): string | undefined;
}

/** What on the part makes one of its supplies from another. */
export function FeedsEditor({ problem }: Told) {
  const { control } = useFormContext<OwnDraft>();
  const supplies = useWatch({ control, name: "supplies" }).map((s) => ({ value: s.key, name: s.key }));
  if (supplies.length < 2) return null;
  return (
    <div className="mt-3">
      <p className="text-soft">A regulator, diode or fuse on it, from one supply to another</p>
      <Rows
        name="feeds"
        what="Regulator or diode"
        add="one supply is made from another on the part"
        blank={() => ({
          source: supplies[0]!.value,
          to: supplies[1]!.value,
          how: "linear",
          V: "",
          dropout: "",
          limit: "",
        })}
        problem={problem}
      >
        {(at, i, row) => (
          <>
            <Pick name={`${at}.how`} label="What it is" options={choices(OWN_FEEDS, false)} />
            <Pick name={`${at}.source`} label="From supply" options={supplies} className="w-24" />
            <Pick name={`${at}.to`} label="To supply" options={supplies} className="w-24" />
            <Field
              name={`${at}.V`}
              label={row.how === "linear" || row.how === "switching" ? "It gives" : "It drops"}
              hint={row.how === "linear" || row.how === "switching" ? "3.3 V ±2%" : "0.2 to 0.5 V"}
              wrong={problem(`feeds/${i}/V`)}
              num
              className="w-32"
            />
            {row.how === "linear" && (
              <Field
                name={`${at}.dropout`}
                label="Dropout"
                hint="0.3 V"
                wrong={problem(`feeds/${i}/dropout`)}
                num
                className="w-24"
              />
            )}
            <Field
              name={`${at}.limit`}
              label="At most"
              hint="150 mA"
              wrong={problem(`feeds/${i}/limit`)}
              num
              className="w-24"
            />
          </>
        )}
      </Rows>
    </div>
  );
}

/** How the pins stand on the part: in a row, or in two. */
export function LayoutEditor({ problem }: Told) {
  const { control } = useFormContext<OwnDraft>();
  const [layout, base] = useWatch({ control, name: ["layout", "base"] });
  const two = layout === "sides" || layout === "ends";
  return (
    <div className="mt-3">
      <div className="flex flex-wrap items-end gap-x-3 gap-y-2">
        <Pick
          name="layout"
          label="How the pins stand"
          options={choices(OWN_LAYOUTS, base !== undefined)}
          className="w-72"
        />
        {two && (
          <Field
            name="firstRow"
            label="Pins in the first row"
            hint="7"
            wrong={problem("firstRow")}
            num
            className="w-36"
          />
        )}
        {layout === "sides" && (
          <Field name="rowPitch" label="Rows apart" hint="15.24 mm" wrong={problem("rowPitch")} num className="w-28" />
        )}
        {two && (
          <Pick
            name="secondRow"
            label="The second row was typed"
            className="w-52"
            options={[
              { value: "down", name: "from the top down too" },
              { value: "up", name: "going on round, upwards" },
            ]}
          />
        )}
      </div>
      {problem("layout") && <p className="text-sm font-bold text-stop">{problem("layout")}</p>}
    </div>
  );
}

/** Parts that belong beside its pins. */
export function CompanionsEditor({ problem }: Told) {
  return (
    <Rows
      name="companions"
      what="Resistor or capacitor"
      add="it wants a resistor or a capacitor beside it"
      blank={() => ({ key: "decoupling", pin: "", to: "", value: "100 nF", required: false, because: "" })}
      problem={problem}
    >
      {(at, i, row) =>
        row.key === "kept" ? (
          <p className="grow">
            {row.pin}: {row.because} <span className="text-soft">({OWN_COMPANIONS.kept.name})</span>
          </p>
        ) : (
          <>
            <Pick name={`${at}.key`} label="What" options={choices(OWN_COMPANIONS, false)} className="w-52" />
            <PickPin name={`${at}.pin`} label="At pin" />
            {OWN_COMPANIONS[row.key].place === "across" && <PickPin name={`${at}.to`} label="And pin" />}
            <Field
              name={`${at}.value`}
              label="Value"
              hint={OWN_COMPANIONS[row.key].unit === "F" ? "100 nF" : "4k7"}
              wrong={problem(`companions/${i}/value`)}
              num
              className="w-24"
            />
            <Field
              name={`${at}.because`}
              label="Why"
              hint="so its data sheet asks"
              wrong={undefined}
              className="w-52"
            />
            <Tick name={`${at}.required`}>does not work without</Tick>
          </>
        )
      }
    </Rows>
  );
}

/** Enables, sleeps and resets, and paths from pin to pin. */
export function PathsEditor({ problem }: Told) {
  return (
    <>
      <Rows
        name="gates"
        what="Enable or reset"
        add="it has an enable, a sleep, a reset or a direction pin"
        blank={() => ({ pin: "", open: "high", says: "" })}
        problem={problem}
      >
        {(at) => (
          <>
            <PickPin name={`${at}.pin`} label="Pin" />
            <Pick
              name={`${at}.open`}
              label="While it is"
              className="w-24"
              options={[
                { value: "high", name: "high" },
                { value: "low", name: "low" },
              ]}
            />
            <Field
              name={`${at}.says`}
              label="The part"
              hint="is awake"
              wrong={undefined}
              className="w-52"
              maxLength={80}
            />
          </>
        )}
      </Rows>
      <Rows
        name="channels"
        what="Path"
        add="a signal passes through it: a buffer, shifter or switch"
        blank={() => ({ in: "", out: "", both: false, enable: "", ohm: "" })}
        problem={problem}
      >
        {(at, i) => (
          <>
            <PickPin name={`${at}.in`} label="From pin" />
            <PickPin name={`${at}.out`} label="To pin" />
            <Tick name={`${at}.both`}>both ways</Tick>
            <PickPin name={`${at}.enable`} label="Opened by a low at" none="always open" />
            <Field
              name={`${at}.ohm`}
              label="Resistance"
              hint="120, or empty"
              wrong={problem(`channels/${i}/ohm`)}
              num
              className="w-28"
            />
          </>
        )}
      </Rows>
    </>
  );
}

/** Addresses that straps choose between. */
export function StrapsEditor({ problem }: Told) {
  return (
    <div className="mt-2">
      <Rows
        name="straps"
        what="Address strap"
        add="a strap chooses its address"
        blank={() => ({ address: "", pin: "", to: "ground" })}
        problem={problem}
      >
        {(at) => (
          <>
            <Field name={`${at}.address`} label="Address" hint="0x40" wrong={undefined} num className="w-24" />
            <PickPin name={`${at}.pin`} label="When pin" />
            <Pick
              name={`${at}.to`}
              label="is"
              className="w-36"
              options={[
                { value: "ground", name: "at ground" },
                { value: "supply", name: "at its supply" },
                { value: "open", name: "left open" },
              ]}
            />
          </>
        )}
      </Rows>
      {problem("straps") && <p className="text-sm font-bold text-stop">{problem("straps")}</p>}
    </div>
  );
}
