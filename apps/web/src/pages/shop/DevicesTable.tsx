import { useQueryClient } from "@tanstack/react-query";
import type { DeviceRow } from "@true-spine/core/registry/contract.ts";
import { useState } from "react";
import { whyOf } from "../../api/client.ts";
import { shutOut, useDevices } from "../../api/door.ts";
import { SmallButton } from "../../parts/Group.tsx";
import { useNotices } from "../../parts/Notices.tsx";
import { PlainButton } from "../../parts/PlainButton.tsx";
import { Question } from "../../parts/Question.tsx";
import { agoInWords, whenInWords } from "../../parts/when.ts";
import { ROLE_NAMES } from "./role-names.ts";

/** Devices that were let in, when each was last here, and the way to shut one out. */
export function DevicesTable() {
  const { data } = useDevices();
  const [asked, setAsked] = useState<DeviceRow | null>(null);
  const queries = useQueryClient();
  const shut = async ({ id, name }: DeviceRow) => {
    try {
      await shutOut(id);
      useNotices.getState().tell(`${name} is shut out. It gets in again by a new code only.`);
    } catch (error) {
      useNotices.getState().tell(`${whyOf(error)} ${name} is still let in.`);
    }
    await queries.invalidateQueries({ queryKey: ["devices"] });
    setAsked(null);
  };
  return (
    <section aria-labelledby="devices" className="mt-5">
      <h2 id="devices" className="text-lg font-bold">
        Devices
      </h2>
      {data?.length === 0 && (
        <p className="mt-1 text-sm text-faint">None was let in yet. This machine itself needs no code.</p>
      )}
      {data && data.length > 0 && (
        <table aria-label="Devices" className="mt-2 w-full border-collapse text-sm">
          <thead>
            <tr className="text-left text-faint">
              {["device", "may do", "let in", "last seen", ""].map((head) => (
                <th key={head} className="border-b border-rule py-1 pr-4 font-semibold">
                  {head || <span className="sr-only">shut out</span>}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {data.map((device) => (
              <tr key={device.id} className={device.revokedAt ? "text-faint" : ""}>
                <th scope="row" className="border-b border-rule py-2 pr-4 text-left font-semibold">
                  {device.name}
                </th>
                <td className="border-b border-rule pr-4">{ROLE_NAMES[device.role]}</td>
                <td className="border-b border-rule pr-4">{whenInWords(Date.parse(device.createdAt))}</td>
                <td className="border-b border-rule pr-4">
                  {device.lastSeenAt ? agoInWords(Date.parse(device.lastSeenAt)) : "not yet"}
                </td>
                <td className="border-b border-rule text-right">
                  {device.revokedAt ? (
                    `shut out ${agoInWords(Date.parse(device.revokedAt))}`
                  ) : (
                    <SmallButton label={`Shut out ${device.name}`} onClick={() => setAsked(device)}>
                      Shut out
                    </SmallButton>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {asked && (
        <Question title={`Shut out ${asked.name}?`} isOpen onClose={() => setAsked(null)}>
          <p>
            Its next request is refused, and what it has open ends at once. What it recorded without the
            network and has not sent stays on it.
          </p>
          <div className="mt-5 flex justify-end gap-2">
            <PlainButton onClick={() => setAsked(null)}>Leave it in</PlainButton>
            <PlainButton kind="main" onClick={() => void shut(asked)}>
              Shut it out
            </PlainButton>
          </div>
        </Question>
      )}
    </section>
  );
}
