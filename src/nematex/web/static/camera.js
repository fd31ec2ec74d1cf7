/* The camera view: one part at a time. What happens is kept in this browser first, and sent when the shop answers. */
const LATER_MS = 1000, REMOTE_MS = 350, PATIENCE_MS = 4000, LEFT_S = 6 * 3600;
const clock = (seconds) => {
  const whole = Math.max(0, Math.round(seconds)), rest = String(whole % 60).padStart(2, "0"), minutes = Math.floor(whole / 60) % 60;
  return whole >= 3600 ? `${Math.floor(whole / 3600)}:${String(minutes).padStart(2, "0")}:${rest}` : `${minutes}:${rest}`;
};
const aKey = () => Array.from(crypto.getRandomValues(new Uint8Array(12)), (byte) => byte.toString(16).padStart(2, "0")).join("");
const started = Date.now() - performance.now();  /* a clock that is set meanwhile moves nothing */
const nowMs = () => started + performance.now();

/* What a take is kept as in this browser; two windows of one programme add to one another. */
class Kept {
  constructor(programme) { this.name = `take of programme ${programme}`; }
  read() { try { return JSON.parse(localStorage.getItem(this.name)); } catch (fault) { return null; } }
  write(take) {
    const other = this.read();
    if (other && other.key === take.key) {
      const sent = new Map(other.events.map((event) => [event.key, event]));
      for (const event of take.events) { if (sent.get(event.key)?.sent) event.sent = true; sent.delete(event.key); }
      take.events.push(...sent.values());
      take.events.sort((a, b) => a.at - b.at);
    }
    try { localStorage.setItem(this.name, JSON.stringify(take)); } catch (fault) { /* full or forbidden: it is still sent */ }
  }
}

/* Where the film stands, from what happened: the part, whether it runs, what was said of it, how long it is without what is cut. */
function stands(events, at) {
  let part = -1, paused = null, began = 0, over = false, said = [], partBegan = 0, ended = at;
  const out = [];
  for (const event of events) {
    if (paused !== null && ["go", "end", "open", "again"].includes(event.kind)) { out.push([paused, event.at]); paused = null; }
    if (event.kind === "open") { part = event.part; began = event.at; said = []; partBegan = event.at; }
    if (event.kind === "again") { out.push([began, event.at]); began = event.at; said = []; partBegan = event.at; }
    if (event.kind === "pause" && paused === null) paused = event.at;
    if (event.kind === "said") said.push(event.fact);
    if (event.kind === "end") { over = true; ended = event.at; }
  }
  const upTo = over ? ended : paused ?? at;
  const spans = [];
  for (const [low, high] of out.sort((a, b) => a[0] - b[0])) {
    const last = spans[spans.length - 1];
    if (last && low <= last[1]) last[1] = Math.max(last[1], high); else spans.push([low, high]);
  }
  const film = (time) => time - spans.reduce((sum, [low, high]) => sum + (low < time ? Math.min(high, time) - low : 0), 0);
  return { part, over, said, paused: paused !== null, film: film(upTo), ofPart: film(upTo) - film(partBegan) };
}

document.addEventListener("alpine:init", () => Alpine.data("camera", () => ({
  take: null, tick: 0, asking: false, typing: null, pairing: false, helping: false, offline: false, gone: "", remoteCode: "", remoteAddress: "", after: 0, shownPart: null,

  init() {
    const data = this.$root.dataset;
    this.here = data.here; this.whole = Number(data.target);
    this.plan = JSON.parse(document.getElementById("plan").textContent);
    this.kept_ = new Kept(data.programme);
    const before = this.kept_.read();
    if (before && !before.finished) this.take = this.takenUp(before);
    this.draw();
    setInterval(() => { this.tick += 1; }, 500);
    this.again_(LATER_MS);
    window.addEventListener("resize", () => this.draw());
    document.fonts.ready.then(() => this.draw());
    document.addEventListener("visibilitychange", () => { if (this.take) this.stayAwake(); });
    window.addEventListener("pagehide", () => { if (this.take) this.kept_.write(this.take); });
    this.keepPage();
  },

  /* A take that this browser still holds goes on; one that was left long ago ended with what happened last. */
  takenUp(take) {
    for (const event of take.events) delete event.open;
    const last = take.events[take.events.length - 1];
    if (last && last.kind !== "end" && (nowMs() - take.started) / 1000 - last.at > LEFT_S) take.events.push({ ...last, key: aKey(), kind: "end", fact: "", text: "", sent: false });
    this.stayAwake();
    return take;
  },

  /* The page itself is kept, so that it opens again while the shop does not answer. */
  async keepPage() {
    if (!navigator.serviceWorker || !window.caches) return;
    await navigator.serviceWorker.register(`${this.here}worker.js`, { scope: this.here }).catch(() => null);
    const own = performance.getEntriesByType("resource").map((one) => new URL(one.name)).filter((one) => one.pathname.startsWith("/static/"));
    const store = await caches.open(`camera ${new URL(this.here, location)}`).catch(() => null);
    for (const address of [location.href, ...own.map(String)]) await store?.add(address).catch(() => null);
    this.$root.dataset.kept = "yes";
  },
  async stayAwake() { try { await navigator.wakeLock?.request("screen"); } catch (fault) { /* where a browser cannot, it is set by hand */ } },

  get at() { return this.take ? (nowMs() - this.take.started) / 1000 : 0; },
  get now() { return this.tick, stands(this.take?.events ?? [], this.at); },
  get isReady() { return !this.take; },
  get isOver() { return Boolean(this.take) && this.now.over; },
  get isAsking() { return this.asking; },
  get typingWhat() { return this.typing === "slip" ? "Slip: what should have been said? (Enter, or empty)" : "Note"; },
  get isPairing() { return this.pairing; },
  get isHelping() { return this.helping; },
  get place() { return this.take ? `${Math.min(this.now.part + 1, this.plan.length)} / ${this.plan.length}` : "ready"; },
  get state() { return !this.take ? "not filming" : this.now.over ? "filmed" : this.now.paused ? "paused" : "filming"; },
  get stateClass() { return this.state === "filming" ? "on" : "off"; },
  get elapsed() { return clock(this.now.film); },
  get target() { return clock(this.whole); },
  get next() { return this.now.over ? "another take, with t" : this.plan[this.now.part + 1]?.title ?? "the end"; },
  get partClock() { const shot = this.shot(this.now.part); return shot && !this.now.over ? `${clock(this.now.ofPart)} of ${clock(Number(shot.dataset.seconds))}` : ""; },
  get partClass() { const shot = this.shot(this.now.part); return shot && this.now.ofPart > Number(shot.dataset.seconds) ? "over" : ""; },
  get unsent() { return (this.take?.events ?? []).filter((event) => !event.sent).length; },
  get kept() { return this.gone || (this.unsent ? `${this.unsent} kept here${this.offline ? ", the shop does not answer" : ""}` : this.take ? "all kept" : ""); },
  get counted() { const slips = this.take?.events.filter((event) => event.kind === "slip").length ?? 0; return slips === 1 ? "1 slip." : `${slips} slips.`; },

  shot(part) { return document.querySelector(`[data-shot="${part}"]`); },
  draw() {
    const now = this.now, shown = !this.take || now.over || this.asking ? null : now.part;
    for (const each of document.querySelectorAll("[data-shot][data-seconds]")) each.hidden = Number(each.dataset.shot) !== shown;
    const shot = shown === null ? null : this.shot(shown);
    let first = true;
    const said = [...now.said];
    for (const fact of shot?.querySelectorAll(".facts li[data-fact]") ?? []) {
      const place = said.indexOf(fact.dataset.fact), done = place >= 0;
      if (done) said.splice(place, 1);
      fact.classList.toggle("done", done);
      fact.classList.toggle("now", !done && first);
      if (!done) first = false;
    }
    if (shot) this.cut(shot);
  },
  /* A line that would be cut in half is not shown, and how many wait below is. */
  cut(shot) {
    const list = shot.querySelector(".facts"), facts = [...list.querySelectorAll("li[data-fact]:not(.done)")], below = list.parentElement.querySelector(".below");
    for (const fact of facts) fact.classList.remove("waits");
    const room = list.clientHeight - (list.scrollHeight > list.clientHeight + 2 ? below.offsetHeight : 0);
    const waiting = facts.slice(1).filter((fact) => fact.offsetTop + fact.offsetHeight > room);
    for (const fact of waiting) fact.classList.add("waits");
    below.textContent = waiting.length ? `${waiting.length} more: Space` : "";
  },
  happen(kind, more = {}) {
    if (!this.take || (this.now.over && kind !== "note")) return null;
    const event = { key: aKey(), kind, at: Math.round(this.at * 100) / 100, part: Math.max(0, this.now.part), fact: "", text: "", ...more };
    this.take.events.push(event);
    this.kept_.write(this.take);
    this.tick += 1;
    this.draw();
    return event;
  },
  begin() {
    this.take = { key: aKey(), started: Math.round(nowMs()), plan: this.plan, events: [] };
    this.stayAwake();
    this.happen("open", { part: 0, at: 0 });
  },
  next_() {
    this.closeAll();
    if (!this.take) { this.begin(); return; }
    if (this.now.over) return;
    if (this.asking) { this.asking = false; this.happen("end"); this.draw(); return; }
    if (this.now.part + 1 >= this.plan.length) { this.asking = true; this.draw(); return; }
    this.happen("open", { part: this.now.part + 1 });
  },
  back_() {
    this.closeAll();
    if (this.asking) { this.asking = false; this.draw(); return; }
    if (this.take && this.now.part > 0) this.happen("open", { part: this.now.part - 1 });
  },
  said_() {
    const fact = document.querySelector("[data-shot]:not([hidden]) .facts li.now");
    if (fact && this.take && !this.asking) this.happen("said", { fact: fact.dataset.fact });
  },
  pause_() { if (this.take && !this.asking) this.happen(this.now.paused ? "go" : "pause"); },
  /* A slip counts from the key, whatever is typed of it afterwards. */
  slip_() {
    if (!this.take || this.now.over) return;
    const fact = document.querySelector("[data-shot]:not([hidden]) .facts li.now");
    this.draft = this.happen("slip", { fact: fact?.dataset.fact ?? "", open: true });
    this.type("slip");
  },
  note_() {
    if (!this.take) return;
    this.draft = { at: Math.round(this.at * 100) / 100 };
    this.type("note");
  },
  type(kind) { this.typing = kind; this.shows("ask", "typed"); },
  /* Shown and ready at once: the next letter is already typed into it. */
  shows(name, field) {
    document.querySelector(`.air .${name}`).hidden = false;
    const box = document.getElementById(field);
    box.value = "";
    box.focus();
  },
  keepTyped() {
    const text = document.getElementById("typed").value.trim(), kind = this.typing, draft = this.draft;
    this.draft = null; this.typing = null;
    document.querySelector(".air .ask").hidden = true;
    document.activeElement?.blur();
    if (kind === "note" && text) this.happen("note", { ...draft, text });
    const slip = kind === "slip" && this.take?.events.find((one) => one.key === draft?.key);
    if (slip) { slip.text = text; delete slip.open; this.kept_.write(this.take); }
    this.tick += 1;
  },
  typedKey(event) { if (event.key === "Escape" || event.key.startsWith("Page")) { event.preventDefault(); event.stopPropagation(); this.keepTyped(); if (event.key === "PageDown") this.next_(); if (event.key === "PageUp") this.back_(); } },

  openLook() { this.shows("look", "asked"); this.look(); },
  look() {
    const words = document.getElementById("asked").value.toLowerCase().split(/[^\p{L}\p{N}]+/u).filter((word) => word.length > 1 && !["in", "it", "is", "to", "of", "the", "what", "how", "up"].includes(word));
    const list = document.getElementById("found"), here = this.shot(Math.max(0, this.now.part));
    const weigh = (one) => words.filter((word) => one.dataset.words.split(/[^\p{L}\p{N}]+/u).some((known) => known.startsWith(word))).length;
    const found = [...(here?.querySelectorAll(".answers li") ?? [])].map((one) => [weigh(one), one]).filter(([weight]) => weight || !words.length);
    found.sort((a, b) => b[0] - a[0]);
    list.replaceChildren(...found.slice(0, 5).map(([, one]) => one.cloneNode(true)));
    if (!list.children.length) list.append(Object.assign(document.createElement("li"), { textContent: "Nothing is known of that here." }));
  },
  lookKey(event) { if (event.key === "Escape" || event.key === "Enter") { event.preventDefault(); event.stopPropagation(); this.closeAll(); } },
  closeAll() { if (this.typing) this.keepTyped(); document.querySelector(".air .look").hidden = true; this.pairing = this.helping = false; document.activeElement?.blur(); },

  press(event) {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    const acts = {
      ArrowRight: () => this.next_(), PageDown: () => this.next_(), ArrowLeft: () => this.back_(), PageUp: () => this.back_(),
      " ": () => this.said_(), b: () => this.said_(), s: () => this.slip_(), n: () => this.note_(), p: () => this.pause_(),
      a: () => { if (this.take && !this.asking) this.happen("again"); }, "/": () => this.openLook(), l: () => this.openLook(), r: () => this.pair(), "?": () => { this.helping = true; },
      f: () => { if (document.fullscreenElement) document.exitFullscreen(); else document.documentElement.requestFullscreen().catch(() => null); },
      t: () => { if (this.isOver) this.another(); }, Escape: () => this.closeAll(),
    };
    if (event.target.closest("input") && !event.key.startsWith("Page")) return;
    const act = acts[event.key];
    if (act && !(event.key === " " && event.target.closest("a"))) { event.preventDefault(); act(); }
  },
  another() {
    if (this.unsent) { this.gone = "This take is not kept by the shop yet: wait for it."; return; }
    this.take = null; this.gone = ""; this.tick += 1; this.draw();
  },

  async post(address, what) {
    const token = document.querySelector("meta[name=csrf]").content;
    return fetch(address, { method: "POST", headers: { "Content-Type": "application/json", "X-CSRFToken": token }, body: JSON.stringify(what), signal: AbortSignal.timeout(PATIENCE_MS) });
  },
  again_(ms) { setTimeout(async () => { await this.send(); await this.hear(); this.again_(this.remoteCode ? REMOTE_MS : LATER_MS); }, ms); },
  async send() {
    const news = (this.take?.events ?? []).filter((event) => !event.sent && !event.open).slice(0, 200);
    if (!news.length) { if (this.take?.events.every((event) => event.sent) && this.now.over && !this.take.finished) { this.take.finished = true; this.kept_.write(this.take); } return; }
    const what = { key: this.take.key, started: this.take.started, plan: this.take.plan, events: news.map(({ key, kind, at, part, fact, text }) => ({ key, kind, at, part, fact, text })) };
    try {
      const answer = await this.post(`${this.here}takes`, what);
      const told = await answer.json();
      this.offline = false;
      if (!answer.ok) { this.gone = told.fault ?? "The shop does not take this."; return; }
      this.gone = "";
      const kept = new Set(told.kept);
      for (const event of this.take.events) if (kept.has(event.key)) event.sent = true;
      this.kept_.write(this.take);
      this.tick += 1;
    } catch (fault) { this.offline = true; }
  },

  async pair() {
    this.pairing = true;
    if (this.remoteCode) return;
    try {
      const told = await (await this.post(`${this.here}remote`, {})).json();
      document.getElementById("picture").innerHTML = told.picture;
      this.remoteAddress = told.address; this.remoteCode = told.code;
    } catch (fault) { this.remoteAddress = "nothing: the shop does not answer. Try again"; }
  },
  async hear() {
    if (!this.remoteCode) return;
    const now = this.now, fact = document.querySelector("[data-shot]:not([hidden]) .facts li.now");
    const shows = { part: now.part, title: this.asking ? "End of the take? Next ends it." : this.isReady ? "Next begins." : now.over ? "The take is over." : this.plan[now.part]?.title ?? "", fact: fact ? `${fact.dataset.fact}: ${fact.innerText.slice(fact.querySelector(".what").innerText.length).trim()}` : "", next: this.next, clock: this.elapsed, state: this.state };
    try {
      const answer = await this.post(`${this.here}remote/${this.remoteCode}?after=${this.after}`, shows);
      if (answer.status === 404) { this.remoteCode = ""; return; }
      for (const one of (await answer.json()).presses) { this.after = one.id; this.pressed(one); }
    } catch (fault) { this.offline = true; }
  },
  pressed({ kind, text, age }) {
    const acts = { next: () => this.next_(), back: () => this.back_(), said: () => this.said_(), pause: () => this.pause_(), again: () => this.happen("again") };
    if (acts[kind]) acts[kind]();
    else if (this.take) this.happen(kind, { text, at: Math.max(0, Math.round((this.at - age) * 100) / 100) });
  },
})));
