/* A page that the shop could not serve comes back when the shop can. */
const every = Number(document.currentScript.dataset.everyS) * 1000;
setInterval(async () => {
  const answer = await fetch("/health/ready", { cache: "no-store" }).catch(() => null);
  if (answer?.ok) location.reload();
}, every);
