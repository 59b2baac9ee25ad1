import "reflect-metadata";
import { createHash, randomBytes, webcrypto, X509Certificate } from "node:crypto";
import { existsSync, mkdirSync, readFileSync, renameSync, writeFileSync } from "node:fs";
import { isIP } from "node:net";
import { join } from "node:path";
import * as x509 from "@peculiar/x509";

const ALGORITHM = { name: "ECDSA", namedCurve: "P-256", hash: "SHA-256" } as const;
const DAY_MS = 24 * 3600 * 1000;
const AUTHORITY_FOR_DAYS = 3650;
/** Browsers take no longer ones of a server: 398 days, from memory of the CA/Browser Forum's baseline requirements. */
const SERVER_FOR_DAYS = 397;
const RENEWED_BEFORE_DAYS = 30;
/** Clocks of tablets may be behind. */
const FROM_BEFORE_DAYS = 1;

/** What a TLS server needs, as PEM, and the shop's own authority that it is signed by. */
export interface Certificates {
  readonly key: string;
  readonly cert: string;
  readonly authority: string;
  /** SHA-256 of the authority, in pairs of hexadecimal digits. */
  readonly fingerprint: string;
}

/**
 * The shop's certificates in a folder: the authority is made once, that of the machine for its names and addresses, again when they
 * change or it is about to end. Keys are readable by their owner only.
 */
export async function certificatesFor(folder: string, names: readonly string[]): Promise<Certificates> {
  x509.cryptoProvider.set(webcrypto as never);
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  const authority = readPair(folder, "authority") ?? (await makeAuthority(folder));
  const standing = readPair(folder, "server");
  const server =
    standing && isGoodFor(standing.cert, authority.cert, names)
      ? standing
      : await makeServer(folder, authority, names);
  const { raw } = new X509Certificate(authority.cert);
  const hash = createHash("sha256").update(raw).digest("hex").toUpperCase();
  return {
    key: server.key,
    cert: `${server.cert.trim()}\n${authority.cert.trim()}\n`,
    authority: authority.cert,
    fingerprint: hash.match(/../g)!.join(":"),
  };
}

interface Pair {
  readonly cert: string;
  readonly key: string;
}

function readPair(folder: string, name: string): Pair | null {
  const [cert, key] = [join(folder, `${name}.crt`), join(folder, `${name}.key`)];
  if (!existsSync(cert) || !existsSync(key)) return null;
  return { cert: readFileSync(cert, "utf8"), key: readFileSync(key, "utf8") };
}

/** Written beside and moved into place, the key first: what is stopped half-way leaves no certificate without its key. */
function keep(folder: string, name: string, pair: Pair): Pair {
  for (const [ending, text] of [
    ["key", pair.key],
    ["crt", pair.cert],
  ] as const) {
    const file = join(folder, `${name}.${ending}`);
    writeFileSync(`${file}.new`, text, { mode: 0o600 });
    renameSync(`${file}.new`, file);
  }
  return pair;
}

function isGoodFor(cert: string, authority: string, names: readonly string[]): boolean {
  const standing = new X509Certificate(cert);
  const endsIn = (Date.parse(standing.validTo) - Date.now()) / DAY_MS;
  if (endsIn < RENEWED_BEFORE_DAYS || !standing.checkIssued(new X509Certificate(authority))) return false;
  return names.every(
    (name) => (isIP(name) ? standing.checkIP(name) : standing.checkHost(name)) !== undefined,
  );
}

async function makeAuthority(folder: string): Promise<Pair> {
  const keys = await newKeys();
  const made = await x509.X509CertificateGenerator.createSelfSigned({
    serialNumber: serial(),
    name: `CN=True Spine shop ${randomBytes(3).toString("hex")}`,
    ...lasting(AUTHORITY_FOR_DAYS),
    keys,
    signingAlgorithm: ALGORITHM,
    extensions: [
      new x509.BasicConstraintsExtension(true, 0, true),
      new x509.KeyUsagesExtension(x509.KeyUsageFlags.keyCertSign | x509.KeyUsageFlags.cRLSign, true),
      await x509.SubjectKeyIdentifierExtension.create(keys.publicKey),
    ],
  });
  return keep(folder, "authority", { cert: made.toString("pem"), key: await pemOf(keys.privateKey) });
}

async function makeServer(folder: string, authority: Pair, names: readonly string[]): Promise<Pair> {
  const issuer = new x509.X509Certificate(authority.cert);
  const signingKey = await webcrypto.subtle.importKey(
    "pkcs8",
    x509.PemConverter.decode(authority.key)[0]!,
    ALGORITHM,
    false,
    ["sign"],
  );
  const keys = await newKeys();
  const made = await x509.X509CertificateGenerator.create({
    serialNumber: serial(),
    subject: `CN=${names[0] ?? "localhost"}`,
    issuer: issuer.subject,
    ...lasting(SERVER_FOR_DAYS),
    publicKey: keys.publicKey,
    signingKey: signingKey as never,
    signingAlgorithm: ALGORITHM,
    extensions: [
      new x509.BasicConstraintsExtension(false, undefined, true),
      new x509.KeyUsagesExtension(x509.KeyUsageFlags.digitalSignature, true),
      new x509.ExtendedKeyUsageExtension([x509.ExtendedKeyUsage.serverAuth]),
      new x509.SubjectAlternativeNameExtension(
        names.map((value) => ({ type: isIP(value) ? "ip" : "dns", value })),
      ),
      await x509.AuthorityKeyIdentifierExtension.create(issuer),
      await x509.SubjectKeyIdentifierExtension.create(keys.publicKey),
    ],
  });
  return keep(folder, "server", { cert: made.toString("pem"), key: await pemOf(keys.privateKey) });
}

const newKeys = async () =>
  (await webcrypto.subtle.generateKey(ALGORITHM, true, ["sign", "verify"])) as webcrypto.CryptoKeyPair;
const pemOf = async (key: webcrypto.CryptoKey) =>
  x509.PemConverter.encode(await webcrypto.subtle.exportKey("pkcs8", key), "PRIVATE KEY");
/** Positive, and not to be guessed. */
const serial = () => `01${randomBytes(15).toString("hex")}`;
const lasting = (days: number) => ({
  notBefore: new Date(Date.now() - FROM_BEFORE_DAYS * DAY_MS),
  notAfter: new Date(Date.now() + days * DAY_MS),
});
