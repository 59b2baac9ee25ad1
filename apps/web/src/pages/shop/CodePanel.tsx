import type { PairingCode, Role } from "@true-spine/core/registry/contract.ts";
import { useEffect, useState } from "react";
import { whyOf } from "../../api/client.ts";
import { makeCode, useCodeLeft } from "../../api/door.ts";
import { Alert } from "../../parts/Alert.tsx";
import { Choice } from "../../parts/Group.tsx";
import { PlainButton } from "../../parts/PlainButton.tsx";
import { TextBox } from "../../parts/TextBox.tsx";
import { ROLE_NAMES } from "./role-names.ts";

/** Makes the code that lets one device in, and shows it as large as it is read across a room, with the time it has left. */
export function CodePanel() {
  const [name, setName] = useState("");
  const [role, setRole] = useState<Role>("card");
  const [code, setCode] = useState<PairingCode | null>(null);
  const [why, setWhy] = useState<string | null>(null);
  const make = async () => {
    setWhy(null);
    try {
      setCode(await makeCode(name.trim() || "Tablet", role));
    } catch (error) {
      setWhy(whyOf(error));
    }
  };
  return (
    <form
      className="flex flex-col gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        void make();
      }}
    >
      <TextBox
        label="Name of the device"
        labelled="above"
        text={name}
        onText={setName}
        maxLength={60}
        placeholder="Tablet"
      />
      <Choice
        label="It may do"
        value={role}
        options={(Object.keys(ROLE_NAMES) as Role[]).map((value) => ({ value, name: ROLE_NAMES[value] }))}
        onChange={(value) => setRole(value as Role)}
      />
      <PlainButton kind="main" type="submit">
        Make a code
      </PlainButton>
      {why && <Alert>{why}</Alert>}
      {code && <Shown key={code.code} code={code} />}
    </form>
  );
}

function Shown({ code }: { code: PairingCode }) {
  const { data } = useCodeLeft(true);
  const ends = Date.parse(code.expiresAt);
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    const ticking = setInterval(() => setNow(Date.now()), 1000);
    return () => clearInterval(ticking);
  }, []);
  const at = data ? Date.parse(data.expiresAt) : 0;
  // What is told of an older one says nothing of this.
  const left = data && at === ends ? data : code;
  const seconds = Math.max(0, Math.round((ends - now) / 1000));
  if (left.isUsed) return <p role="status">It was typed, and the device is in.</p>;
  if (at > ends) return <p role="status">A newer code was made: this one is void.</p>;
  if (left.triesLeft <= 0) return <Alert>Five wrong codes were typed: this one is void. Make another.</Alert>;
  if (seconds === 0) return <p role="status">Its five minutes are over. Make another.</p>;
  return (
    <div>
      <p role="status" aria-label="Code" className="font-mono text-4xl font-bold tracking-widest">
        {code.code}
      </p>
      <p className="mt-1 text-sm text-faint">
        Good for one device, {Math.floor(seconds / 60)}:{String(seconds % 60).padStart(2, "0")} more
        {left.triesLeft < 5 ? `, ${left.triesLeft} tries left` : ""}.
      </p>
    </div>
  );
}
