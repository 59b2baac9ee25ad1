import { spawn } from "node:child_process";
import { once } from "node:events";
import { describe, expect, test } from "vitest";
import { browserOn, installOn, postgresOn, THIS_MACHINE } from "../found.mjs";
import { fromProc, fromPs } from "../process-facts.mjs";

/** A machine by the files on it and what its commands say. */
function machine({ files = [], says = {}, platform = "linux", system = "", env = {} }) {
  const has = (path) => files.some((file) => file === path || file.startsWith(`${path}/`));
  return {
    platform,
    env,
    system,
    has,
    list: (folder) => [
      ...new Set(
        files.flatMap((file) =>
          file.startsWith(`${folder}/`) ? [file.slice(folder.length + 1).split("/")[0]] : [],
        ),
      ),
    ],
    ask: (...words) => says[words.join(" ")] ?? null,
  };
}
const server = (bin) => [`${bin}/initdb`, `${bin}/postgres`];

// Where each system's own packages put them. Source: the file lists of their postgresql and chromium packages, from memory.
const MACHINES = [
  [
    "Debian 12",
    { system: "ID=debian", files: [...server("/usr/lib/postgresql/15/bin"), "/usr/bin/chromium"] },
    15,
    "/usr/bin/chromium",
  ],
  [
    "Debian 13",
    {
      system: "ID=debian",
      files: [
        ...server("/usr/lib/postgresql/17/bin"),
        "/usr/bin/chromium",
        "/usr/bin/chromium-headless-shell",
      ],
    },
    17,
    "/usr/bin/chromium-headless-shell",
  ],
  [
    "Ubuntu 22.04",
    {
      system: "ID=ubuntu\nID_LIKE=debian",
      files: [...server("/usr/lib/postgresql/14/bin"), "/usr/bin/chromium-browser"],
    },
    14,
    "/usr/bin/chromium-browser",
  ],
  [
    "Ubuntu 24.04 under WSL",
    {
      system: "ID=ubuntu\nID_LIKE=debian",
      files: [...server("/usr/lib/postgresql/16/bin"), "/snap/bin/chromium"],
    },
    16,
    "/snap/bin/chromium",
  ],
  [
    "macOS with Homebrew on Apple's processors",
    {
      platform: "darwin",
      files: [
        ...server("/opt/homebrew/opt/postgresql@14/bin"),
        ...server("/opt/homebrew/opt/postgresql@17/bin"),
        "/Applications/Chromium.app/Contents/MacOS/Chromium",
      ],
    },
    17,
    "/Applications/Chromium.app/Contents/MacOS/Chromium",
  ],
  [
    "macOS with Homebrew on Intel's",
    {
      platform: "darwin",
      files: [...server("/usr/local/opt/postgresql@13/bin")],
      says: { "which chromium": "/usr/local/bin/chromium" },
    },
    13,
    "/usr/local/bin/chromium",
  ],
  ["Red Hat's kin", { system: "ID=fedora", files: server("/usr/pgsql-16/bin") }, 16, null],
  [
    "one built by hand, told by pg_config",
    {
      files: server("/opt/db/bin"),
      says: {
        "pg_config --bindir": "/opt/db/bin",
        "/opt/db/bin/initdb --version": "initdb (PostgreSQL) 15.4",
      },
    },
    15,
    null,
  ],
  [
    "one on the path alone",
    {
      files: server("/home/me/pg/bin"),
      says: {
        "which initdb": "/home/me/pg/bin/initdb",
        "/home/me/pg/bin/initdb --version": "initdb (PostgreSQL) 17.0",
      },
    },
    17,
    null,
  ],
];

describe("what is found on a machine", () => {
  test.each(MACHINES)("%s", (_, some, major, browser) => {
    const on = machine(some);
    expect(postgresOn(on)[0]).toMatchObject({ major });
    expect(browserOn(on)).toBe(browser);
  });

  test("nothing: too old a server, a client alone, an empty machine", () => {
    expect(postgresOn(machine({ files: server("/usr/lib/postgresql/12/bin") }))).toEqual([]);
    expect(postgresOn(machine({ files: ["/usr/lib/postgresql/15/bin/psql"] }))).toEqual([]);
    expect(postgresOn(machine({ says: { "pg_config --bindir": "/usr/bin" } }))).toEqual([]);
    expect(browserOn(machine({}))).toBeNull();
  });

  test("what is named is taken, and nothing else looked for", () => {
    const files = [
      ...server("/usr/lib/postgresql/15/bin"),
      ...server("/my/14/bin"),
      "/my/browser",
      "/usr/bin/chromium",
    ];
    const env = { TRUE_SPINE_POSTGRES: "/my", TRUE_SPINE_BROWSER: "/my/browser" };
    expect(postgresOn(machine({ files, env }))).toEqual([{ major: 14, bin: "/my/14/bin" }]);
    expect(browserOn(machine({ files, env }))).toBe("/my/browser");
    expect(browserOn(machine({ files, env: { TRUE_SPINE_BROWSER: "/none" } }))).toBeNull();
  });

  test("several versions: the newest first, each of them there to be asked for", () => {
    const files = [13, 17, 9, 15].flatMap((major) => server(`/usr/lib/postgresql/${major}/bin`));
    expect(postgresOn(machine({ files })).map(({ major }) => major)).toEqual([17, 15, 13]);
  });

  test("on this very machine", () => {
    expect(postgresOn(THIS_MACHINE)[0].major).toBeGreaterThanOrEqual(13);
  });
});

test.each([
  ["ID=debian", "linux", "apt", "postgresql", "chromium-headless-shell"],
  ["ID=ubuntu\nID_LIKE=debian", "linux", "apt", "postgresql", "chromium-browser"],
  ["", "darwin", "brew", "postgresql@17", "chromium"],
  ["ID=fedora", "linux", null, "postgresql", "chromium"],
])("what is missing is named as %s on %s names it", (system, platform, by, postgres, browser) => {
  const on = machine({ system, platform });
  expect(installOn(on, "postgres")).toMatchObject({ by, name: postgres });
  expect(installOn(on, "browser")).toMatchObject({ by, name: browser });
  expect(installOn(on, "postgres", 14).name).toMatch(/^postgresql[-@]14$/);
  expect(installOn(on, "certificates").words).toMatch(/nss/);
});

describe("processes, as the system's files tell them and as ps does", () => {
  test("the same parent, command and life; each start names one process", async () => {
    const child = spawn(process.execPath, ["-e", "setTimeout(() => {}, 600000)", "two words"], {
      stdio: "ignore",
    });
    try {
      for (const by of [fromProc, fromPs]) {
        const facts = by.factsOf(child.pid);
        expect(facts.parent).toBe(process.pid);
        expect(facts.command).toContain("two words");
        expect(facts.state).not.toMatch(/^[ZX]/);
        expect(by.factsOf(child.pid).start).toBe(facts.start);
        expect(by.pids()).toContain(child.pid);
      }
    } finally {
      child.kill("SIGKILL");
      await once(child, "exit");
    }
    for (const by of [fromProc, fromPs]) expect(by.factsOf(child.pid)).toBeNull();
  });
});
