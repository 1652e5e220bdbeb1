import { randomUUID } from 'node:crypto';
import { access, mkdir, readdir, rename, rm } from 'node:fs/promises';
import { join } from 'node:path';
import type { Task } from '@tersum/core';
import type { Picture, Records } from '@tersum/document';
import { baseName } from '@tersum/document';
import type { OpenPicture } from '../pool/tasks.js';
import type { WorkPool } from '../pool/pool.js';
import type { RecordStore } from '../store/records.js';
import type { Originals } from './originals.js';

/** What repairs begin from: the original, or what was prepared of it. */
export interface Base {
  /** Names its samples. */
  readonly name: string;
  readonly picture: OpenPicture;
}

/** Prepared pictures, made when they are first needed and kept as files: they can always be made again. */
export class Bases {
  private readonly making = new Map<string, Promise<void>>();

  /** @param folder where prepared pictures lie */
  constructor(
    private readonly folder: string,
    private readonly records: RecordStore,
    private readonly originals: Originals,
    private readonly pool: WorkPool,
  ) {}

  /** Removes what no record asks for any more: it would be made again if one did. */
  async tidy(): Promise<void> {
    await mkdir(this.folder, { recursive: true });
    const wanted = new Set(
      this.records.preparations().map(({ original, how }) => fileOf(baseName(original, how))),
    );
    for (const file of await readdir(this.folder))
      if (!wanted.has(file)) await rm(join(this.folder, file), { force: true });
  }

  /** A picture's base as its records stand. */
  get(pictureId: string): Promise<Base> {
    return this.of(this.records.picture(pictureId), this.records.records(pictureId));
  }

  async of(
    { original }: Pick<Picture, 'original'>,
    { preparations }: Pick<Records, 'preparations'>,
    task?: Task,
  ): Promise<Base> {
    const [how] = preparations;
    const name = baseName(original, how);
    if (name === original || !how) return { name, picture: await this.originals.get(original) };
    const path = join(this.folder, fileOf(name));
    const exists = await access(path).then(
      () => true,
      () => false,
    );
    if (!exists) {
      const made =
        this.making.get(name) ??
        this.make(original, how, path, task).finally(() => this.making.delete(name));
      this.making.set(name, made);
      await made;
    }
    return { name, picture: await this.originals.openAs(name, path) };
  }

  private async make(
    original: string,
    { grey, blocks }: Records['preparations'][number],
    path: string,
    task?: Task,
  ): Promise<void> {
    const { raster } = await this.originals.get(original);
    const draft = join(this.folder, `${randomUUID()}.draft`);
    const source = this.originals.pathOf(original);
    await this.pool.search<'prepare'>(
      { kind: 'prepare', source, original: raster, how: { grey, blocks }, to: draft },
      {
        signal: new AbortController().signal,
        ...(task?.progress ? { progress: task.progress } : {}),
      },
    );
    await rename(draft, path);
  }
}

function fileOf(name: string): string {
  return `${name}.tif`;
}
