/* Small behaviours on top of pages that work without them: keys, copying, choices that act at once. */
let renewals = 0, swapping = false;

const key = (field) => field.id || field.name;
const found = (name) => document.getElementById(name) || document.querySelector(`main [name="${CSS.escape(name)}"]`);

/* What is typed, chosen and opened on the page, so that it stands again after the page was drawn anew. */
function held() {
  const field = document.activeElement;
  const caret = field && "selectionStart" in field ? [field.selectionStart, field.selectionEnd] : null;
  const fields = [...document.querySelectorAll("main :is(input, select, textarea):not([type=hidden], [type=file])")];
  return {
    key: field && key(field), caret, top: scrollY,
    sent: new Map(fields.map((each) => [key(each), each.type === "checkbox" ? each.checked : each.value])),
    open: [...document.querySelectorAll("main details")].map((each) => each.open),
  };
}

function restore(before, now) {
  for (const [name, sent] of before.sent) {
    const field = found(name), typed = now.get(name);
    if (field && typed !== undefined && typed !== sent) { if (field.type === "checkbox") field.checked = typed; else field.value = typed; }
  }
  const field = before.key && found(before.key);
  if (field) {
    field.focus({ preventScroll: true });
    /* What a script put back is no change to the browser: it would say nothing when the field is left. */
    const sent = before.sent.get(before.key);
    const say = () => field.dispatchEvent(new Event("change", { bubbles: true }));
    if (sent !== undefined && field.type !== "checkbox" && field.value !== sent) field.addEventListener("blur", say, { once: true });
    try { if (before.caret) field.setSelectionRange(...before.caret); } catch (fault) { /* a select has no caret */ }
  }
}

/* Send a form by its address and put the answer in the place of this page, keeping focus, caret and what was typed meanwhile. */
async function renew(form) {
  if (swapping || !form.isConnected) return;  /* a field says that it changed when it is taken away */
  if (form.method === "post") { form.requestSubmit(); return; }
  const number = ++renewals, before = held();
  const query = new URLSearchParams(new FormData(form));
  const address = `${form.getAttribute("action") || location.pathname}?${query}`;
  const answer = await fetch(address).catch(() => null);
  if (number !== renewals) return;  /* a later choice is on its way */
  if (!answer?.ok) { form.requestSubmit(); return; }
  const page = new DOMParser().parseFromString(await answer.text(), "text/html");
  if (number !== renewals) return;
  const after = held();
  swapping = true;
  document.querySelector("main").replaceWith(page.querySelector("main"));
  swapping = false;
  document.title = page.title;
  history.replaceState(null, "", address);
  queueMicrotask(() => {
    const folds = [...document.querySelectorAll("main details")];
    if (folds.length === after.open.length) folds.forEach((each, at) => { each.open = after.open[at]; });
    restore({ ...before, key: after.key, caret: after.caret }, after.sent);
    scrollTo(scrollX, after.top);
  });
}

document.addEventListener("alpine:init", () => {
  const typing = (event) => event.target.closest("input:not([type=checkbox]), textarea, select, [contenteditable]") || event.ctrlKey || event.metaKey || event.altKey;

  /* Keys: one letter for what is frequent. They can be switched off in the list of keys. */
  Alpine.data("keys", () => ({
    going: false,
    off: localStorage.getItem("keys") === "off",
    get on() { return !this.off; },
    toggle() { this.off = !this.off; localStorage.setItem("keys", this.off ? "off" : "on"); },
    open() { this.$refs.list.showModal(); },
    close() { this.$refs.list.close(); },
    press(event) {
      if (typing(event)) return;
      if (event.key === "?") { event.preventDefault(); this.open(); return; }
      if (this.off || this.$refs.list.open) return;
      if (this.going) {
        this.going = false;
        const place = document.querySelector(`[data-go="${CSS.escape(event.key)}"]`);
        if (place) { event.preventDefault(); place.click(); }
        return;
      }
      if (event.key === "g") { this.going = true; setTimeout(() => { this.going = false; }, 1500); return; }
      if (event.key === "/") {
        const search = document.querySelector("input[type=search]");
        if (search) { event.preventDefault(); search.focus(); search.select(); }
        return;
      }
      if (event.key === "j" || event.key === "k") { this.step(event.key === "j" ? 1 : -1); return; }
      if (event.key === "a") { const row = document.activeElement.closest("[data-row]"); const add = row && row.querySelector("[data-add]"); if (add) add.click(); return; }
      if (event.key === "n") { const row = document.activeElement.closest("[data-row]"); const not = row && row.querySelector("[data-refuse]"); if (not) { not.click(); return; } }
      if (event.key === "f") { const field = document.querySelector("main :is(input:not([type=hidden], [type=checkbox]), select, textarea)"); if (field) { event.preventDefault(); field.focus(); } return; }
      if (event.key === "v" || event.key === "V") { this.view(event.key === "v" ? 1 : -1); return; }
      const act = document.querySelector(`[data-key="${CSS.escape(event.key)}"]`);
      if (act) { event.preventDefault(); act.click(); }
    },
    view(by) {
      const views = [...document.querySelectorAll(".ways a")], now = views.findIndex((one) => one.hasAttribute("aria-current"));
      if (views.length) views[(now + by + views.length) % views.length].click();
    },
    step(by) {
      const rows = [...document.querySelectorAll("[data-row]")];
      const now = rows.findIndex((row) => row.contains(document.activeElement));
      const next = rows[Math.min(Math.max(now + by, 0), rows.length - 1)];
      if (next) { next.querySelector("a.name, a.card-link").focus(); next.scrollIntoView({ block: "nearest" }); }
    },
  }));

  /* Beside the answers it is open; on a phone, above them, it starts folded. */
  Alpine.data("folds", () => ({ init() { if (window.matchMedia("(max-width: 1000px)").matches) this.$root.open = false; } }));

  /* A form that is sent as soon as a choice changes: the page is drawn anew around what is being typed. */
  Alpine.data("atonce", () => ({ send() { renew(this.$root); } }));

  /* Copying the notes, as text and, where the browser can, as formatted text. */
  Alpine.data("notes", () => ({
    kind: "md", init() { this.kind = this.$root.dataset.kind; },
    said: "",
    get isMd() { return this.kind === "md"; },
    get isTxt() { return this.kind === "txt"; },
    get isHtml() { return this.kind === "html"; },
    get mdCurrent() { return this.isMd ? "true" : false; },
    get txtCurrent() { return this.isTxt ? "true" : false; },
    get htmlCurrent() { return this.isHtml ? "true" : false; },
    showMd() { this.kind = "md"; }, showTxt() { this.kind = "txt"; }, showHtml() { this.kind = "html"; },
    async copy() {
      const text = this.$root.querySelector(`[data-text="${this.kind}"]`).value;
      try {
        if (this.kind === "html" && window.ClipboardItem) {
          await navigator.clipboard.write([new ClipboardItem({ "text/html": new Blob([text], { type: "text/html" }), "text/plain": new Blob([text], { type: "text/plain" }) })]);
        } else {
          await navigator.clipboard.writeText(text);
        }
        this.said = "Copied.";
      } catch (fault) {
        const box = this.$root.querySelector(`[data-text="${this.kind}"]`);
        box.hidden = false; box.focus(); box.select();
        this.said = "The browser did not allow copying: the text is selected, press Ctrl+C.";
      }
    },
  }));

  /* Said beside whatever waits for the worker: that all work in the background is behind, where it is. */
  Alpine.data("behind", () => ({
    said: "",
    init() { this.ask(); },
    async ask() {
      try { this.said = (await (await fetch("/health/lanes")).json()).behind; } catch (fault) { /* asked again */ }
      setTimeout(() => this.ask(), 20000);
    },
  }));

  /* How far a job in the background is; asks again until it is done, then goes on. */
  Alpine.data("progress", () => ({
    done: 0,
    total: 0,
    over: false,
    failed: false,
    why: "",
    get waits() { return !this.over && !this.failed; },
    get share() { return this.total ? Math.round((100 * this.done) / this.total) : 0; },
    get said() { return this.total ? `${this.done} of ${this.total}` : "starting"; },
    init() { this.ask(); },
    async ask() {
      try {
        const state = await (await fetch(this.$root.dataset.state)).json();
        this.done = state.done; this.total = state.total;
        if (state.next) { this.over = true; location.href = state.next; return; }
        if (state.failed) { this.why = state.why; this.failed = true; return; }
      } catch (fault) { /* the shop may be busy or away: ask again */ }
      setTimeout(() => this.ask(), 500);
    },
  }));

  /* Of a change to the pattern only its own numbers are shown; the others are not sent. */
  Alpine.data("changing", () => ({
    kind: "",
    init() { this.kind = this.$root.querySelector("select").value; this.$watch("kind", () => this.show()); this.show(); },
    show() {
      for (const label of this.$root.querySelectorAll(".change-number")) {
        const own = label.dataset.kind === this.kind;
        label.hidden = !own; label.querySelector("input, select").disabled = !own;
      }
    },
  }));

  /* A lay: renewed while it is worked on; afterwards pieces are moved by hand and held against geometry on the server. */
  Alpine.data("laying", () => ({
    done: 0, total: 0, waiting: 0, verdict: "", wrong: true, held: null, moved: {},
    get share() { return this.total ? Math.min(100, Math.round((100 * this.done) / this.total)) : 0; },
    get said() { return this.waiting ? `waiting, ${this.waiting} before it` : `${this.done} of about ${this.total} seconds`; },
    get moves() { return JSON.stringify(Object.values(this.moved)); },
    get tone() { return this.wrong ? "short-of" : ""; },
    get cannotKeep() { return this.wrong || !Object.keys(this.moved).length; },
    init() {
      this.done = Number(this.$root.dataset.done); this.total = Number(this.$root.dataset.total);
      if (this.$root.dataset.runs === "1") this.ask();
    },
    async ask() {
      try {
        const state = await (await fetch(this.$root.dataset.now)).json();
        Object.assign(this, { done: state.done, total: state.total, waiting: state.waiting });
        if (!state.runs) { location.reload(); return; }
        this.$refs.drawing.innerHTML = state.page;
      } catch (fault) { /* the shop may be busy or away: ask again */ }
      setTimeout(() => this.ask(), 1000);
    },
    /* Screen pixels to cm: the drawing's own matrix knows. */
    at(event) { return new DOMPoint(event.clientX, event.clientY).matrixTransform(this.$refs.drawing.querySelector("svg").getScreenCTM().inverse()); },
    grab(event) {
      const piece = event.target.closest(".laid-piece");
      if (!piece || this.$root.dataset.runs === "1") return;
      event.preventDefault(); piece.focus();
      this.held = { piece, from: this.at(event), before: this.shift(piece) };
      this.$refs.drawing.setPointerCapture(event.pointerId);
    },
    shift(piece) { return [Number(piece.dataset.dx || 0), Number(piece.dataset.dy || 0)]; },
    drag(event) {
      if (!this.held) return;
      const to = this.at(event), [x, y] = this.held.before;
      this.put(this.held.piece, x + to.x - this.held.from.x, y + to.y - this.held.from.y);
    },
    drop() { if (this.held) { this.held = null; this.check(); } },
    nudge(event) {
      const step = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[event.key];
      const piece = event.target.closest(".laid-piece");
      if (!step || !piece || this.$root.dataset.runs === "1") return;
      event.preventDefault();
      const [x, y] = this.shift(piece), by = event.shiftKey ? 0.1 : 1;
      this.put(piece, x + by * step[0], y + by * step[1]);
      this.check();
    },
    put(piece, dx, dy) {
      Object.assign(piece.dataset, { dx, dy });
      piece.setAttribute("transform", `translate(${dx} ${dy})`);
      const { piece: name, copy, x, y } = piece.dataset;
      this.moved = { ...this.moved, [`${name} ${copy}`]: [name, Number(copy), Number(x) + dx, Number(y) + dy] };
    },
    async check() {
      const body = new URLSearchParams({ csrf_token: this.$root.dataset.token, moves: this.moves });
      try {
        const found = await (await fetch(this.$root.dataset.try, { method: "POST", body })).json();
        this.wrong = found.faults.length > 0;
        this.verdict = this.wrong ? `${found.faults.slice(0, 3).join("; ")}.` : `${found.length}, and nothing overlaps.`;
      } catch (fault) { this.wrong = true; this.verdict = "The shop did not answer; move it again."; }
    },
  }));

  /* The hang is drawn anew while a measurement or the look is moved; another cloth or garment is another page. */
  Alpine.data("hangs", () => ({
    asked: 0,
    soon(event) {
      if (["garment", "cloth", "find"].includes(event.target.name)) return;
      this.draw();
    },
    again() { this.$root.requestSubmit(); },
    /* What was drawn before stays, with what went wrong above it. */
    failed(why) {
      this.$refs.drawing.querySelector("[role=alert]")?.remove();
      const said = Object.assign(document.createElement("p"), { className: "fault", textContent: `${why} Move it again, or reload the page.` });
      said.setAttribute("role", "alert");
      this.$refs.drawing.prepend(said);
    },
    async draw() {
      const number = ++this.asked;
      const query = new URLSearchParams(new FormData(this.$root));
      const answer = await fetch(`${this.$root.dataset.drawing}?${query}`).catch(() => null);
      const drawing = answer?.ok || answer?.status === 400 ? await answer.text() : "";  /* a 400 says what cannot be hung */
      if (number !== this.asked) return;  /* an older drawing that came late */
      if (!drawing) return this.failed(answer ? "It could not be drawn." : "The shop does not answer.");
      this.$refs.drawing.innerHTML = drawing;
      history.replaceState(null, "", `?${query}`);
    },
  }));

  /* Options of a garment that are mixed by ticking: their names, joined, are what is sent. */
  Alpine.data("mixing", () => ({
    mix() {
      const made = [...this.$root.querySelectorAll("[data-option]")].filter((box) => box.checked).map((box) => box.value);
      this.$refs.options.value = made.join("|");
      renew(this.$root);
    },
  }));

  /* The grid of verdicts is one stop of the Tab key; arrows walk in it. */
  Alpine.data("gridwalk", () => ({
    init() { const first = this.$root.querySelector("a.cell"); if (first) first.tabIndex = 0; },
    walk(event) {
      const cell = event.target.closest("td");
      const steps = { ArrowRight: [0, 1], ArrowLeft: [0, -1], ArrowDown: [1, 0], ArrowUp: [-1, 0] };
      if (!cell || !(event.key in steps)) return;
      event.preventDefault();
      const rows = [...this.$root.tBodies[0].rows];
      const [down, right] = steps[event.key];
      const row = rows[Math.min(Math.max(rows.indexOf(cell.parentElement) + down, 0), rows.length - 1)];
      const next = row.cells[Math.min(Math.max(cell.cellIndex + right, 1), row.cells.length - 1)].querySelector("a");
      cell.querySelector("a").tabIndex = -1;
      next.tabIndex = 0;
      next.focus();
    },
  }));

  /* Something that takes a moment says so. */
  Alpine.data("busy", () => ({ busy: false, start() { this.busy = true; } }));

  /* A line is kept as soon as its field is left; what stands on the page goes with every button as well. */
  Alpine.data("lines", () => ({
    async keep(event) {
      const field = event.target.closest("[name^=line-]");
      if (!field) return;
      const number = field.name.replace("line-", ""), typed = field.value;
      const base = this.$root.elements[`shown-${number}`];
      const said = this.$root.querySelector(`[data-said="${number}"]`);
      const sent = new URLSearchParams({ csrf_token: this.$root.elements.csrf_token.value, act: "keep", [field.name]: typed, [base.name]: base.value });
      const answer = await fetch(this.$root.getAttribute("action"), { method: "POST", body: sent, keepalive: true, redirect: "manual" }).catch(() => null);
      if (answer?.type === "opaqueredirect") { base.value = typed; said.textContent = "kept"; }
      else said.textContent = "not kept yet: press Keep";
    },
  }));

  /* What a colleague saved meanwhile is taken over into its field. */
  Alpine.data("theirs", () => ({
    take() {
      const { field, text } = this.$root.dataset;
      const place = document.querySelector(`[name="${CSS.escape(field)}"]`);
      place.value = text; place.focus();
      this.$root.closest(".caution").remove();
    },
  }));

  /* The wall: garments are dragged to their place, or moved with keys; the order is kept at once. */
  Alpine.data("hanging", () => ({
    said: "", held: null, from: null,
    all() { return [...this.$root.querySelectorAll("[data-pick]")]; },
    far(one, event) { const box = one.querySelector(".spot").getBoundingClientRect(); return Math.hypot(box.x + box.width / 2 - event.clientX, box.y + box.height / 2 - event.clientY); },
    press(event) {
      const one = event.target.closest("[data-pick]");
      if (!one) return;
      const all = this.all(), at = all.indexOf(one), step = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
      if (event.key === "Enter") { location.href = `${this.$root.dataset.picks}#pick-${one.dataset.pick}`; return; }
      if (!step || !all[at + step]) return;
      event.preventDefault(); event.stopPropagation();
      if (event.shiftKey) this.move(at, at + step); else all[at + step].focus();
    },
    take(event) {
      this.held = event.target.closest("[data-pick]");
      if (!this.held) return;
      event.preventDefault();
      this.held.focus({ preventScroll: true });
      this.from = [event.clientX, event.clientY];
      this.$root.setPointerCapture(event.pointerId);
    },
    drag(event) {
      if (!this.held) return;
      const svg = this.held.ownerSVGElement, scale = svg.viewBox.baseVal.width / svg.getBoundingClientRect().width;
      this.held.setAttribute("transform", `translate(${(event.clientX - this.from[0]) * scale} ${(event.clientY - this.from[1]) * scale})`);
    },
    drop(event) {
      const held = this.held;
      if (!held) return;
      this.held = null;
      held.removeAttribute("transform");
      const all = this.all(), here = all.indexOf(held);
      const there = all.indexOf(all.reduce((best, one) => (this.far(one, event) < this.far(best, event) ? one : best)));
      if (there !== here) this.move(here, there);
    },
    over(event) { event.preventDefault(); },
    put(event) {  /* a photo dropped on a garment takes the place of its drawing */
      const one = event.target.closest("[data-pick]"), files = event.dataTransfer?.files;
      if (!one || !files?.length) return;
      event.preventDefault();
      const form = document.getElementById("own-photo");
      form.elements.pick.value = one.dataset.pick;
      form.elements.photo.files = files;
      form.requestSubmit(form.querySelector("button"));
    },
    async move(from, to) {
      const order = this.all().map((one) => one.dataset.pick), [moved] = order.splice(from, 1);
      order.splice(to, 0, moved);
      const body = new URLSearchParams({ csrf_token: this.$root.querySelector("[name=csrf_token]").value, order: order.join(" "), moved });
      const answer = await fetch(this.$root.dataset.order, { method: "POST", body }).catch(() => null);
      if (!answer?.ok) { this.said = "Not kept: the shop does not answer. Try again."; return; }
      const page = new DOMParser().parseFromString(await answer.text(), "text/html");
      this.$root.querySelector("svg").replaceWith(page.querySelector("svg.wall-drawing"));
      this.said = `Moved to place ${to + 1}.`;
      this.$root.querySelector(`[data-pick="${moved}"]`)?.focus();
    },
  }));

  /* Something that cannot be taken back is asked once. */
  Alpine.data("sure", () => ({
    asked: false,
    get label() { const { first, then } = this.$root.dataset; return this.asked ? then || "Really remove?" : first || "Remove"; },
    ask(event) { if (!this.asked) { event.preventDefault(); this.asked = true; } },
  }));
});
