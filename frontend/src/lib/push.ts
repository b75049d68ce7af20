/** Messages to this browser, by its push service. */

interface Reached {
  endpoint: string;
  p256dh: string;
  auth: string;
}

/** Whether this browser can be told anything while the page is closed. */
export function canBePushed(): boolean {
  return "serviceWorker" in navigator && "PushManager" in window && "Notification" in window;
}

/** Where this browser is reached now; null where it lets nothing come. */
export async function pushedTo(): Promise<string | null> {
  if (!canBePushed()) return null;
  const worker = await navigator.serviceWorker.getRegistration();
  const open = await worker?.pushManager.getSubscription();
  return open?.endpoint ?? null;
}

/** Ask the person, then the push service. The house's key is base64url. */
export async function pushHere(key: string): Promise<Reached> {
  if ((await Notification.requestPermission()) !== "granted")
    throw new Error("The browser does not allow it. Allow notifications for this page, then try again.");
  const worker = await navigator.serviceWorker.ready;
  const before = await worker.pushManager.getSubscription();
  await before?.unsubscribe(); // it may be of another key, or of whoever signed in here before
  const open = await worker.pushManager.subscribe({ userVisibleOnly: true, applicationServerKey: key });
  const { endpoint, keys } = open.toJSON();
  if (endpoint === undefined || keys?.p256dh === undefined || keys.auth === undefined)
    throw new Error("The browser gave no address for messages; try again.");
  return { endpoint, p256dh: keys.p256dh, auth: keys.auth };
}

/** Nothing comes here any more. */
export async function stopHere(): Promise<void> {
  if (!canBePushed()) return;
  const worker = await navigator.serviceWorker.getRegistration();
  await (await worker?.pushManager.getSubscription())?.unsubscribe();
}

/** What a person calls this device by: its kind and browser, as far as it says. */
export function nameOfThis(agent: string = navigator.userAgent): string {
  const kinds = ["iPhone", "iPad", "Android", "Windows", "Mac", "Linux"];
  const browsers = ["Firefox", "Edg", "Chrome", "Safari"];
  const kind = kinds.find((one) => agent.includes(one)) ?? "A device";
  const browser = browsers.find((one) => agent.includes(one));
  return browser === undefined ? kind : `${kind}, ${browser === "Edg" ? "Edge" : browser}`;
}
