"use client";
import { useState } from "react";
import type { ConnectorPins } from "@/core/parts/catalogue";
import { PIN_ROLES, type PinRole } from "@/core/parts/catalogue/roles";
import { Fold } from "@/ui/shared/fold";
import { SaveField } from "@/ui/shared/save-field";
import { Select } from "@/ui/shared/select";
import { core } from "@/ui/state/core";
import { useActions } from "@/ui/state/project";
import type { PartView } from "@/workers/view";

/** Names and roles of a connector's pins: what the other end is, pin by pin. */
export function ConnectorTable({ part }: { part: PartView }) {
  const { run } = useActions();
  const pins = part.pins!;
  // Open while nothing is said; after that it stays as the person leaves it.
  const [fresh] = useState(Object.keys(pins.given).length === 0);
  // Changes the project as it is when the step runs: two quick changes are both kept.
  const put = (label: string, change: (was: ConnectorPins[string] | undefined) => ConnectorPins[string] | undefined) =>
    void run(async (p) => {
      const next = { ...(p.parts.find((x) => x.ref === part.ref)?.options?.[pins.key] as ConnectorPins | undefined) };
      const value = change(next[label]);
      if (value === undefined) delete next[label];
      else next[label] = value;
      const given = Object.keys(next).length ? next : null;
      return core().edit(p, { type: "setOption", ref: part.ref, key: pins.key, value: given });
    });
  return (
    <Fold className="mt-1 text-sm" open={fresh} title="what its pins are">
      <table className="plain mt-1 w-auto!" aria-label={`Pins of ${part.label}`}>
        <thead>
          <tr>
            <th>pin</th>
            <th>name</th>
            <th>for the board it is</th>
            <th>volts</th>
          </tr>
        </thead>
        <tbody>
          {pins.labels.map((label) => {
            const now = pins.given[label];
            const unused = now === null;
            return (
              <tr key={label}>
                <td className="num">{label}</td>
                <td>
                  <SaveField
                    label={`Name of pin ${label}`}
                    hideLabel
                    fieldClass="w-24"
                    value={now?.name ?? ""}
                    disabled={unused}
                    schema={(s) => s.pinName}
                    save={(name) => put(label, (was) => ({ ...(was ?? {}), name: name || undefined }))}
                  />
                </td>
                <td>
                  <Select
                    label={`Role of pin ${label}`}
                    value={unused ? "unused" : (now?.role ?? "")}
                    options={[
                      { value: "", name: "not said yet" },
                      { value: "unused", name: "not used" },
                      ...PIN_ROLES.map((r) => ({ value: r as string, name: r })),
                    ]}
                    onChange={(role) =>
                      put(label, (was) =>
                        role === "unused" ? null : role ? { ...(was ?? {}), role: role as PinRole } : undefined,
                      )
                    }
                  />
                </td>
                <td>
                  {now?.role && now.role !== "ground" && (
                    <SaveField
                      label={`Volts of pin ${label}`}
                      hideLabel
                      numeric
                      fieldClass="num w-16"
                      value={String(now.V ?? 5)}
                      schema={(s) => s.numberIn("The pin", 0.1, 60, "V")}
                      save={(V) => put(label, (was) => ({ ...(was ?? {}), V }))}
                    />
                  )}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </Fold>
  );
}
