// What the house's own worker kept before this one.
self.addEventListener("activate", (event) => event.waitUntil(caches.delete("kumpan-shell-1")));

// Shows what the house sends to this browser, and leads to where it is about. Imported by the worker.
self.addEventListener("push", (event) => {
  const said = event.data ? event.data.json() : { title: "Kumpan", body: "", url: "/", tag: "kumpan" };
  event.waitUntil(
    self.registration.showNotification(said.title, {
      body: said.body,
      tag: said.tag,
      icon: "/icon.svg",
      data: { url: said.url },
    }),
  );
});

self.addEventListener("notificationclick", (event) => {
  event.notification.close();
  const url = new URL(event.notification.data?.url ?? "/", self.location.origin).href;
  event.waitUntil(
    self.clients.matchAll({ type: "window", includeUncontrolled: true }).then(async (open) => {
      const here = open.find((one) => one.url.startsWith(self.location.origin));
      if (here === undefined) return self.clients.openWindow(url);
      await here.focus();
      return here.navigate(url);
    }),
  );
});
