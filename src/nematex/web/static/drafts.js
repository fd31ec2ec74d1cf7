/* Drafts of long forms: what is typed is kept in this browser until it is saved, and offered again when it was not. */
const PREFIX = "nematex draft ", DAYS = 14, AFTER_MS = 400;
const name = (form) => PREFIX + location.pathname + " " + (form.getAttribute("action") || "");
const kept = (key) => { try { return JSON.parse(localStorage.getItem(key)); } catch (fault) { return null; } };
const keys = () => Object.keys(localStorage).filter((key) => key.startsWith(PREFIX));
const drop = (key) => localStorage.removeItem(key);

function keep(key, draft) {
  try { localStorage.setItem(key, JSON.stringify(draft)); } catch (fault) { /* full, or switched off: nothing is kept */ }
}

const fields = (form) => [...form.elements].filter((each) => each.name && !["hidden", "password", "file", "submit", "button"].includes(each.type));
const value = (field) => ["checkbox", "radio"].includes(field.type) ? String(field.checked) : field.value;
const id = (field) => ["checkbox", "radio"].includes(field.type) ? `${field.name}=${field.value}` : field.name;
const typed = (form) => Object.fromEntries(fields(form).map((each) => [id(each), value(each)]));

function putBack(form, values) {
  for (const field of fields(form)) {
    const text = values[id(field)];
    if (text === undefined || text === value(field)) continue;
    if (["checkbox", "radio"].includes(field.type)) field.checked = text === "true"; else field.value = text;
    field.dispatchEvent(new Event("input", { bubbles: true }));
  }
}

function offer(form, key, draft) {
  const bar = document.createElement("div"), words = document.createElement("span");
  bar.className = "told";
  bar.setAttribute("role", "status");
  words.textContent = `What you typed here on ${new Date(draft.at).toLocaleString([], { dateStyle: "medium", timeStyle: "short" })} was not saved.`;
  bar.append(words);
  for (const [label, act] of [["Put it back", () => putBack(form, draft.values)], ["Let it go", () => drop(key)]]) {
    const button = document.createElement("button");
    button.type = "button";
    button.className = "btn btn-line btn-sm";
    button.textContent = label;
    button.addEventListener("click", () => { act(); bar.remove(); });
    bar.append(button);
  }
  form.before(bar);
}

function watch(form) {
  const key = name(form), before = typed(form), draft = kept(key);
  const faulty = document.querySelector("main .fault");
  if (draft && !faulty && Object.entries(draft.values).some(([field, text]) => field in before && before[field] !== text)) offer(form, key, draft);
  let waiting = 0;
  form.addEventListener("input", () => {
    clearTimeout(waiting);
    waiting = setTimeout(() => {
      const now = typed(form);
      if (JSON.stringify(now) === JSON.stringify(before) && !faulty) drop(key); else keep(key, { at: Date.now(), values: now });
    }, AFTER_MS);
  });
  form.addEventListener("submit", () => { clearTimeout(waiting); keep(key, { at: Date.now(), values: typed(form), sent: true }); });
}

/* What was sent is saved where the answer is no page with a fault. */
const refused = document.querySelector("main .fault, body:not(:has(header.head)) [role=alert]");
for (const key of keys()) {
  const draft = kept(key);
  if (!draft || Date.now() - draft.at > DAYS * 864e5 || (draft.sent && !refused)) drop(key);
  else if (draft.sent) keep(key, { at: draft.at, values: draft.values });
}
document.querySelectorAll("form[data-draft]").forEach(watch);
document.querySelectorAll("form[data-leave]").forEach((form) => form.addEventListener("submit", () => keys().forEach(drop)));
