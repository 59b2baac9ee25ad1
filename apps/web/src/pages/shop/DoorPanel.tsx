import type { Door } from "@true-spine/core/registry/contract.ts";
import { useEffect, useState } from "react";
import { useDoor } from "../../api/door.ts";
import { CodePanel } from "./CodePanel.tsx";

/** How a tablet gets in: where to point it, and the code that lets it. */
export function DoorPanel() {
  const { data: door, isPending, isError } = useDoor();
  return (
    <section aria-labelledby="let-in" className="rounded-md border border-rule bg-sheet p-5">
      <h2 id="let-in" className="text-lg font-bold">
        Let a tablet in
      </h2>
      {isPending && <p className="text-faint">Fetching …</p>}
      {isError && (
        <p role="alert">The server does not answer. Nothing is lost; it is tried again by itself.</p>
      )}
      {door === null && (
        <p className="mt-2 max-w-prose">
          True Spine speaks to this machine only just now. To let tablets and other machines in, stop it and
          start it with <code className="font-semibold">npm start -- --shop</code>: then everything between
          them is locked, and each is let in here.
        </p>
      )}
      {door && (
        <div className="mt-3 grid gap-6 lg:grid-cols-[auto_1fr_1fr]">
          <QrCode text={door.trust} />
          <Steps door={door} />
          <CodePanel />
        </div>
      )}
    </section>
  );
}

function Steps({ door }: { door: Door }) {
  const [first, ...others] = door.addresses;
  return (
    <div className="text-sm">
      <ol className="list-decimal space-y-2 pl-5">
        <li>
          Once on each device: point its camera at the square, or open{" "}
          <b className="whitespace-nowrap">{door.trust}</b>. The page tells how to trust this shop. It shows
          the same SHA-256 as here:
          <code className="mt-1 block text-xs break-all text-faint">{door.fingerprint}</code>
        </li>
        <li>
          On the device open <b className="whitespace-nowrap">{first}</b>
          {others.length > 0 && <span className="text-faint"> (or {others.join(", ")})</span>}.
        </li>
        <li>Make a code here and type it there.</li>
      </ol>
      <p className="mt-3 text-faint">
        Without trust a device still works on line: its browser warns, and it does not keep its cards without
        the network.
      </p>
    </div>
  );
}

/** An address as a square for a camera. */
function QrCode({ text }: { text: string }) {
  const [svg, setSvg] = useState<string | null>(null);
  useEffect(() => {
    let isGone = false;
    void import("qrcode").then(async ({ toString: draw }) => {
      const drawn = await draw(text, { type: "svg", margin: 2, errorCorrectionLevel: "M" });
      if (!isGone) setSvg(drawn);
    });
    return () => {
      isGone = true;
    };
  }, [text]);
  return svg ? (
    <img
      className="size-44 rounded border border-rule bg-white"
      alt={`Code for a camera: ${text}`}
      src={`data:image/svg+xml,${encodeURIComponent(svg)}`}
    />
  ) : (
    <span className="size-44 rounded border border-rule" />
  );
}
