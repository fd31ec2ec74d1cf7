/* What would be refused to who is signed in is not offered: a form with fields stands there to be read, the rest goes. The server refuses it all the same. */
(() => {
  const closed = JSON.parse(document.body.dataset.closed), role = document.body.dataset.role;
  const tests = Object.fromEntries(Object.entries(closed).map(([method, all]) => [method, new RegExp(`^(?:${all.join("|")})$`)]));
  const refused = (method, address) => {
    const url = new URL(address, location.href);
    return url.origin === location.origin && tests[method]?.test(url.pathname);
  };
  const FIELDS = "input:not([type=hidden], [type=submit]), select, textarea";

  /* Whether a field says something that is worth reading. */
  function said(field) {
    if (field.type === "checkbox" || field.type === "radio") return field.checked;
    return field.tagName === "SELECT" ? field.selectedIndex > 0 : field.value.trim() !== "";
  }

  function takeLink(link) {
    const before = link.previousSibling, after = link.nextSibling;
    if (before?.nodeType === 3 && /·\s*$/.test(before.data)) before.data = before.data.replace(/\s*·\s*$/, " ");
    else if (after?.nodeType === 3) after.data = after.data.replace(/^\s*·\s*/, "");
    link.remove();
  }

  function takeButton(button) {
    if (!button.formAction || !button.hasAttribute("formaction")) return;
    if (refused((button.getAttribute("formmethod") || button.form?.method || "get").toUpperCase(), button.formAction)) button.remove();
  }

  function shut(form) {
    [...form.elements].forEach((each) => {
      if (each.type !== "hidden") each.disabled = true;
      if (!form.contains(each)) (each.closest("label") ?? each).hidden = true;  /* elsewhere on the page, but sent with this form */
    });
    form.classList.add("not-yours");
    if ([...form.querySelectorAll(FIELDS)].some(said)) { form.title = `To be read: not for a ${role} to change`; return; }
    form.hidden = true;
    const around = form.parentElement, headings = [...around.children].filter((each) => /^H[2-6]$/.test(each.tagName));
    if (headings.length === around.children.length - 1) around.hidden = true;  /* its heading goes with it */
  }

  function look(root) {
    root.querySelectorAll("a[href]").forEach((link) => { if (refused("GET", link.href)) takeLink(link); });
    root.querySelectorAll("button[formaction]").forEach(takeButton);
    root.querySelectorAll("form").forEach((form) => {
      if (refused(form.method.toUpperCase(), form.getAttribute("action") || location.href)) shut(form);
    });
  }

  look(document);
  new MutationObserver((seen) => {
    for (const { addedNodes } of seen) addedNodes.forEach((each) => { if (each.nodeType === 1 && each.isConnected) look(each.parentNode); });
  }).observe(document.body, { childList: true, subtree: true });
})();
