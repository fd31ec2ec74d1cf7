/* Passkeys: ask the shop what to ask the device, and send its answer back. Shown where the browser can. */
const able = window.PublicKeyCredential?.parseCreationOptionsFromJSON && !/^[\d.]+$|:/.test(location.hostname);

async function send(address, form, more = {}) {
  const body = new FormData(form);
  for (const [name, value] of Object.entries(more)) body.set(name, value);
  const answer = await fetch(address, { method: "POST", body, headers: { "X-Asks": "data" } });
  const told = await answer.json();
  if (told.to && !answer.ok) location.assign(told.to); // the password is wanted first
  if (!answer.ok) throw new Error(told.fault);
  return told;
}

async function ask(form) {
  const make = form.dataset.passkey === "new", Key = PublicKeyCredential;
  const asked = await send(form.dataset.options, form);
  const publicKey = make ? Key.parseCreationOptionsFromJSON(asked) : Key.parseRequestOptionsFromJSON(asked);
  const found = await navigator.credentials[make ? "create" : "get"]({ publicKey });
  location.assign((await send(form.dataset.check, form, { answer: JSON.stringify(found.toJSON()) })).to);
  if (make) location.reload();
}

for (const form of document.querySelectorAll("[data-passkey]")) {
  if (!able) { form.hidden = true; continue; }
  form.hidden = false;
  form.addEventListener("submit", async (event) => {
    event.preventDefault();
    const told = form.querySelector(".fault");
    told.hidden = true;
    try { await ask(form); } catch (fault) {
      told.textContent = fault.name === "NotAllowedError" ? "passkey: the device was not asked, or did not answer. Nothing was changed." : fault.message;
      told.hidden = false;
    }
  });
}
