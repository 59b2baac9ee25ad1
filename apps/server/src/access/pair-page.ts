const STYLE = `
body { margin: 0; min-height: 100vh; display: grid; place-items: center; background: #e9e4d8; color: #23211d; font: 18px/1.5 system-ui, sans-serif; }
main { max-width: 30rem; padding: 2rem; }
.name { margin: 0 0 1.5rem; padding-bottom: .4rem; border-bottom: 3px solid #10325c; font-weight: 800; color: #10325c; }
h1 { font-size: 1.6rem; margin: 0 0 .5rem; }
label { display: block; margin: 1.5rem 0 .4rem; font-weight: 700; }
input { width: 100%; box-sizing: border-box; padding: .6rem .8rem; font: 700 2rem ui-monospace, monospace; letter-spacing: .1em; text-transform: uppercase; border: 2px solid #23211d; border-radius: 6px; background: #fff; color: inherit; }
button, a.main { display: inline-block; margin-top: 1rem; padding: .8rem 1.6rem; min-height: 44px; box-sizing: border-box; font: 700 1.1rem system-ui, sans-serif; border: 0; border-radius: 6px; background: #10325c; color: #fff; text-decoration: none; }
[role=alert] { margin-top: 1rem; padding: .6rem .8rem; border-left: 5px solid #a3271b; background: #fff; }
ol { padding-left: 1.2rem; } li { margin: .6rem 0; } code { font-size: .9rem; overflow-wrap: anywhere; }
`;

const page = (title: string, body: string) => `<!doctype html>
<html lang="en"><head><meta charset="utf-8"><meta name="referrer" content="same-origin"><meta name="viewport" content="width=device-width, initial-scale=1">
<title>${title} · True Spine</title><style>${STYLE}</style></head><body><main><p class="name">True Spine</p>${body}</main></body></html>
`;

/** The only page that a device sees which was not let in: it asks for the code. Whole in itself. */
export function pairPage(why: string | null): string {
  return page(
    "Let this device in",
    `<h1>Let this device in</h1>
<p>At the desk, open <b>Shop</b> and make a code. It lets one device in, and is good for five minutes.</p>
<form method="post" action="/pair">
<label for="code">Code</label>
<input id="code" name="code" required maxlength="20" autocomplete="off" autocapitalize="characters" spellcheck="false" autofocus>
${why ? `<p role="alert">${why}</p>` : ""}
<button type="submit">Let it in</button>
</form>`,
  );
}

/** How a device is told to trust this shop: shown over plain HTTP, because it is not trusted yet. */
export function trustPage({ address, fingerprint }: { address: string; fingerprint: string }): string {
  return page(
    "Trust this shop",
    `<h1>Trust this shop</h1>
<p>What goes between this device and the shop's machine is locked. Once it trusts the shop, it also keeps its cards without the network.</p>
<ol>
<li><a href="/true-spine-shop.crt">Take the shop's certificate</a>.</li>
<li>Compare: the desk shows the same SHA-256 under <b>Shop</b>.<br><code>${fingerprint}</code></li>
<li>On a tablet or phone, open what was taken and install it as an authority to be trusted (settings, security, certificates). On some, trust is then switched on by itself in the settings. In a browser on a computer: settings, certificates, authorities, import.</li>
</ol>
<p>Whoever has the shop's machine can then vouch to this device for other addresses too. Trust the machine of your own shop only, and take its certificate out again when you part.</p>
<p>Without that the shop still works on line: the browser warns, and cards are not kept without the network.</p>
<a class="main" href="${address}">Go to the shop</a>`,
  );
}
