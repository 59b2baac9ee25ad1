import { LENGTH_UNITS } from "@true-spine/core/units/length.ts";
import { Command } from "cmdk";
import { useNavigate } from "react-router";
import { useSettings } from "../../app/settings.ts";
import { type Panel, useRail, useScreen } from "../../blade/screen.ts";
import { PlainButton } from "../../parts/PlainButton.tsx";
import { Question } from "../../parts/Question.tsx";
import { PAGES_UNDER, usePages } from "./pages.ts";
import { KEYS } from "./useKeys.ts";

/** The command list behind /, and the keys behind ?. */
export function Commands() {
  const { open, rail, id } = useScreen();
  const panel = useRail((state) => state.panel);
  const setPanel = (next: Panel | null) => rail.setState({ panel: next });
  const navigate = useNavigate();
  const pages = usePages();
  const { setUnit, setTheme, letterKeys, setLetterKeys } = useSettings();
  const commands: { name: string; run: () => void }[] = [
    ...[...pages, ...PAGES_UNDER].map(({ path, name }) => ({
      name: `Go to ${name}`,
      run: () => navigate(`/blades/${id}/${path}`),
    })),
    { name: "Go to the rack", run: () => navigate("/") },
    { name: "Go to Runs", run: () => navigate("/runs") },
    { name: "Go to Stores", run: () => navigate("/stores") },
    { name: "Go to Sums", run: () => navigate("/sums") },
    { name: "New blade", run: () => navigate("/new") },
    { name: "Undo", run: () => open.undo() },
    { name: "Redo", run: () => open.redo() },
    { name: "Open the findings", run: () => rail.setState({ isTrayOpen: true }) },
    { name: "Show in 3D", run: () => rail.setState({ isSolidOpen: true }) },
    { name: "Show the whole knife", run: () => rail.setState({ fit: "whole" }) },
    { name: "Show the blade", run: () => rail.setState({ fit: "blade" }) },
    ...LENGTH_UNITS.map((unit) => ({ name: `Read in ${unit}`, run: () => setUnit(unit) })),
    { name: "Limits of this blade", run: () => setPanel("limits") },
    { name: "Revisions", run: () => setPanel("history") },
    { name: "Export: template, drawing, solid, file", run: () => setPanel("export") },
    { name: "Dark theme", run: () => setTheme("dark") },
    { name: "Light theme", run: () => setTheme("light") },
  ];
  return (
    <>
      <Question title="Commands" isOpen={panel === "commands"} onClose={() => setPanel(null)}>
        <Command label="Commands">
          <Command.Input
            autoFocus
            placeholder="What do you want to do?"
            className="h-10 w-full rounded border border-frame bg-sheet px-3"
          />
          <Command.List className="mt-2 max-h-80 overflow-auto">
            <Command.Empty className="p-3 text-faint">No such command.</Command.Empty>
            {commands.map(({ name, run }) => (
              <Command.Item
                key={name}
                onSelect={() => {
                  setPanel(null);
                  run();
                }}
                className="cursor-pointer rounded px-3 py-2 data-[selected=true]:bg-deep data-[selected=true]:text-on-deep"
              >
                {name}
              </Command.Item>
            ))}
          </Command.List>
        </Command>
      </Question>
      <Question title="Keys" isOpen={panel === "keys"} onClose={() => setPanel(null)}>
        <dl className="grid grid-cols-[auto_1fr] gap-x-5 gap-y-2">
          {KEYS.map(({ keys, does }) => (
            <div key={keys} className="contents">
              <dt>
                <kbd className="rounded border border-frame bg-sheet px-1.5 py-0.5 text-sm font-semibold">
                  {keys}
                </kbd>
              </dt>
              <dd>{does}</dd>
            </div>
          ))}
        </dl>
        <label className="mt-4 flex items-center gap-2">
          <input
            type="checkbox"
            className="size-5"
            checked={letterKeys}
            onChange={(event) => setLetterKeys(event.currentTarget.checked)}
          />
          Single letters, digits, / and ? do things. Alt with a digit changes the page either way.
        </label>
        <div className="mt-5 flex justify-end">
          <PlainButton onClick={() => setPanel(null)}>Close</PlainButton>
        </div>
      </Question>
    </>
  );
}
