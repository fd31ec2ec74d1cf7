/* Small behaviours on top of pages that work without them: keys, copying, choices that act at once. */
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
      const act = document.querySelector(`[data-key="${CSS.escape(event.key)}"]`);
      if (act) { event.preventDefault(); act.click(); }
    },
    step(by) {
      const rows = [...document.querySelectorAll("[data-row]")];
      const now = rows.findIndex((row) => row.contains(document.activeElement));
      const next = rows[Math.min(Math.max(now + by, 0), rows.length - 1)];
      if (next) { next.querySelector("a.name").focus(); next.scrollIntoView({ block: "nearest" }); }
    },
  }));

  /* Beside the answers it is open; on a phone, above them, it starts folded. */
  Alpine.data("folds", () => ({ init() { if (window.matchMedia("(max-width: 1000px)").matches) this.$root.open = false; } }));

  /* A form that is sent as soon as a choice changes. */
  Alpine.data("atonce", () => ({ send() { this.$root.requestSubmit(); } }));

  /* Copying the notes, as text and, where the browser can, as formatted text. */
  Alpine.data("notes", () => ({
    kind: "md",
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

  /* How far a job in the background is; asks again until it is done, then goes on. */
  Alpine.data("progress", () => ({
    done: 0,
    total: 0,
    get share() { return this.total ? Math.round((100 * this.done) / this.total) : 0; },
    get said() { return this.total ? `${this.done} of ${this.total}` : "starting"; },
    init() { this.ask(); },
    async ask() {
      try {
        const state = await (await fetch(this.$root.dataset.state)).json();
        this.done = state.done; this.total = state.total;
        if (state.next) { location.href = state.next; return; }
      } catch (fault) { /* the shop may be busy or away: ask again */ }
      setTimeout(() => this.ask(), 500);
    },
  }));

  /* Something that takes a moment says so. */
  Alpine.data("busy", () => ({ busy: false, start() { this.busy = true; } }));

  /* Something that cannot be taken back is asked once. */
  Alpine.data("sure", () => ({
    asked: false,
    get label() { return this.asked ? "Really remove?" : "Remove"; },
    ask(event) { if (!this.asked) { event.preventDefault(); this.asked = true; } },
  }));
});
