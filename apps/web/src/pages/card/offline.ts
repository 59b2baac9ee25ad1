import { DOCUMENT_KINDS } from "@true-spine/core/registry/documents.ts";
import { useEffect, useState } from "react";
import routeWorker from "../../workers/route.worker.ts?worker&url";

/**
 * Whether this card would open again with the network gone: asked for as soon as it is shown; null until that is known. Browsers keep
 * pages only over a secure address that they trust.
 */
export function useOffline(id: string): boolean | null {
  const [isKept, setIsKept] = useState<boolean | null>(null);
  useEffect(() => {
    const { serviceWorker } = navigator;
    if (!serviceWorker) return setIsKept(false);
    let isGone = false;
    const onMessage = ({ data }: MessageEvent<{ kind?: string }>) => {
      if (!isGone && (data?.kind === "kept" || data?.kind === "not kept")) setIsKept(data.kind === "kept");
    };
    serviceWorker.addEventListener("message", onMessage);
    const keep = async () => {
      await serviceWorker.register("/card-worker.js", { scope: "/card/" });
      const { active } = await serviceWorker.ready;
      const loaded = performance
        .getEntriesByType("resource")
        .map((entry) => entry.name)
        .filter((url) => url.startsWith(`${location.origin}/`) && !url.includes("/card-worker.js"));
      const api = [
        `/api/blades/${id}`,
        ...DOCUMENT_KINDS.map((kind) => `/api/blades/${id}/documents/${kind}`),
        `/api/blades/${id}/readings`,
        `/api/blades/${id}/work`,
        "/api/shop",
      ];
      const urls = [...loaded, routeWorker, ...api].map((url) => new URL(url, location.origin).href);
      active?.postMessage({ kind: "keep", urls: [...new Set(urls)] });
    };
    // Without it the card works as long as the network does; nothing else depends on it.
    keep().catch(() => {
      if (!isGone) setIsKept(false);
    });
    return () => {
      isGone = true;
      serviceWorker.removeEventListener("message", onMessage);
    };
  }, [id]);
  return isKept;
}
