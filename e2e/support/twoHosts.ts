/** Two hosts on one cable, as network namespaces: the gym's machine, and a phone in the gym. */
import { spawnSync } from 'node:child_process';
import { chmodSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { chromium, type Browser } from '@playwright/test';
import { scratchFolder } from '@sinew/demo/scratch';
import { flagsOf } from './config';

export interface Host {
  /** The command that runs another one on this host. */
  readonly through: readonly string[];
  /** Gives it one more address on the cable. */
  addAddress(address: string): void;
  dropAddress(address: string): void;
  /** A browser that stands on it. */
  browser(): Promise<Browser>;
}

const ip = (...args: string[]) => {
  const { status, stderr, error } = spawnSync('ip', args, { encoding: 'utf8' });
  if (status !== 0) throw new Error(`ip ${args.join(' ')}: ${error?.message ?? stderr}`);
};

export class TwoHosts {
  readonly gym: Host;
  readonly phone: Host;

  private constructor(id: string) {
    const names = [`sinew-gym-${id}`, `sinew-phone-${id}`];
    const cards = [`sg${id}`, `sp${id}`] as const;
    ip('link', 'add', cards[0], 'type', 'veth', 'peer', 'name', cards[1]);
    const [gym, phone] = names.map((name, i) => {
      const card = cards[i]!;
      ip('link', 'set', card, 'netns', name);
      ip('-n', name, 'link', 'set', 'lo', 'up');
      ip('-n', name, 'link', 'set', card, 'up');
      return host(name, card);
    });
    [this.gym, this.phone] = [gym!, phone!];
  }

  /** @returns why there are none, where this machine does not let a test make hosts */
  static make(): TwoHosts | string {
    const id = String(process.pid);
    try {
      ip('netns', 'add', `sinew-gym-${id}`);
      ip('netns', 'add', `sinew-phone-${id}`);
      return new TwoHosts(id);
    } catch (error) {
      removeAll(id);
      return error instanceof Error ? error.message : String(error);
    }
  }

  remove(): void {
    removeAll(String(process.pid));
  }
}

function removeAll(id: string): void {
  for (const name of [`sinew-gym-${id}`, `sinew-phone-${id}`]) {
    spawnSync('ip', ['netns', 'del', name]);
  }
}

function host(name: string, card: string): Host {
  const through = ['ip', 'netns', 'exec', name];
  const address = (what: string, of: string) => ip('-n', name, 'addr', what, of, 'dev', card);
  return {
    through,
    addAddress: (of) => address('add', of),
    dropAddress: (of) => address('del', of),
    async browser() {
      // Playwright talks with it through a pipe, which knows nothing of networks.
      const wrapped = join(scratchFolder('browser'), 'chromium');
      writeFileSync(wrapped, `#!/bin/sh\nexec ${through.join(' ')} /usr/bin/chromium "$@"\n`);
      chmodSync(wrapped, 0o755);
      return chromium.launch({ executablePath: wrapped, args: [...flagsOf()] });
    },
  };
}
