/* The remote: a press is sent at once or not at all; a slip or a note waits until the shop answers, and says when it was. */
const LATE_MS = 3000;
const aKey = () => Array.from(crypto.getRandomValues(new Uint8Array(12)), (byte) => byte.toString(16).padStart(2, "0")).join("");

document.addEventListener("alpine:init", () => Alpine.data("remote", () => ({
  clock: "", state: "", title: "", fact: "", next: "", told: "", waiting: [],
  init() {
    this.here = this.$root.dataset.here;
    this.title = this.$root.querySelector("h1").textContent;
    const look = async () => { await this.look(); await this.sendWaiting(); setTimeout(look, 600); };
    look();
  },
  async look() {
    try {
      const answer = await fetch(`${this.here}/shows`, { signal: AbortSignal.timeout(LATE_MS) });
      if (answer.status === 404) { this.told = "This code is no longer good. Ask the camera view for another."; return; }
      const shows = await answer.json();
      for (const name of ["clock", "state", "title", "fact", "next"]) if (shows[name] !== undefined) this[name] = shows[name];
      if (this.told === "No connection.") this.told = "";
    } catch (fault) { if (!this.told.startsWith("Not sent")) this.told = "No connection."; } // what was not sent is to be pressed again
  },
  async post(what) {
    const token = document.querySelector("meta[name=csrf]").content;
    const answer = await fetch(`${this.here}/press`, { method: "POST", headers: { "Content-Type": "application/json", "X-CSRFToken": token }, body: JSON.stringify(what), signal: AbortSignal.timeout(LATE_MS) });
    if (answer.status >= 500) throw new Error(answer.statusText);
    return answer.ok;
  },
  async press(event) {
    const kind = event.target.value;
    if (kind === "slip") { this.wait(kind, ""); return; }
    const key = aKey();
    try { this.told = (await this.post({ key, kind })) ? "" : "That was not taken."; } catch (fault) { this.told = `Not sent: ${kind}. Press again.`; }
  },
  note() {
    const field = document.getElementById("note");
    if (field.value.trim()) this.wait("note", field.value);
    field.value = "";
  },
  wait(kind, text) { this.waiting.push({ key: aKey(), kind, text, pressed: performance.now() }); this.told = `${kind}: waits to be sent`; this.sendWaiting(); },
  async sendWaiting() {
    while (this.waiting.length && !this.sending) {
      this.sending = true;
      const { key, kind, text, pressed } = this.waiting[0];
      try { await this.post({ key, kind, text, age: (performance.now() - pressed) / 1000 }); this.waiting.shift(); this.told = `${kind}: kept`; } catch (fault) { this.sending = false; return; }
      this.sending = false;
    }
  },
})));
