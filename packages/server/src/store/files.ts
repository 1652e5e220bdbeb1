import { createHash } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { access, mkdir, open, readFile, rename, rm } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { randomUUID } from 'node:crypto';
import { pipeline } from 'node:stream/promises';

/** Files named by the SHA-256 of their content, so that none is ever overwritten or stored twice. */
export class ContentStore {
  constructor(private readonly folder: string) {}

  /** Where the content with this hash lies. */
  pathOf(hash: string): string {
    return join(this.folder, hash.slice(0, 2), hash);
  }

  /** Moves a file in; on disk before it returns. @returns its hash */
  async adopt(file: string): Promise<string> {
    const hash = createHash('sha256');
    await pipeline(createReadStream(file), hash);
    const name = hash.digest('hex');
    await this.settle(file, this.pathOf(name));
    return name;
  }

  /** Writes bytes; on disk before it returns. @returns their hash */
  async write(bytes: Uint8Array): Promise<string> {
    const name = contentName(bytes);
    const path = this.pathOf(name);
    if (await exists(path)) return name;
    await mkdir(this.folder, { recursive: true });
    const draft = join(this.folder, `${randomUUID()}.draft`);
    const handle = await open(draft, 'w');
    try {
      await handle.writeFile(bytes);
    } finally {
      await handle.close();
    }
    await this.settle(draft, path);
    return name;
  }

  read(hash: string): Promise<Buffer> {
    return readFile(this.pathOf(hash));
  }

  private async settle(from: string, to: string): Promise<void> {
    if (await exists(to)) {
      await rm(from);
      return;
    }
    await sync(from);
    await mkdir(dirname(to), { recursive: true });
    await rename(from, to);
    await sync(dirname(to));
  }
}

/** What content is named by: its SHA-256. */
export function contentName(bytes: Uint8Array): string {
  return createHash('sha256').update(bytes).digest('hex');
}

async function exists(path: string): Promise<boolean> {
  return access(path).then(
    () => true,
    () => false,
  );
}

async function sync(path: string): Promise<void> {
  const handle = await open(path, 'r');
  try {
    await handle.sync();
  } finally {
    await handle.close();
  }
}
