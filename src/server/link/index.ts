import type { App } from '../app';
import { openBroker } from './broker';
import type { Link } from './link';
import { Listener } from './listener';
import { listenOutside } from './outside';

export type { Link } from './link';

/** Opens the bench link: the broker at `MQTT_URL`, else one of its own on the loopback. */
export function openLink(app: App): Promise<Link> {
  const listener = new Listener(app);
  const outside = process.env.MQTT_URL;
  return outside ? listenOutside(app, listener, outside) : openBroker(app, listener);
}
