import { digestText } from '@tersum/core';

/** A well-formed UUID (version 8) that is the same on every machine. */
export function fixedId(name: string): string {
  const hex = digestText(`marrow quay ${name}`);
  return [
    hex.slice(0, 8),
    hex.slice(8, 12),
    `8${hex.slice(13, 16)}`,
    `8${hex.slice(17, 20)}`,
    hex.slice(20, 32),
  ].join('-');
}
