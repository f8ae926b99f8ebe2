import { hashText } from "../engine/index.js";

/** One of several parts of a project's files, each for a machine of its own. */
export interface Shard {
  /** Counted from 1. */
  readonly number: number;
  readonly of: number;
}

const SHARD = /^([1-9]\d{0,3})\/([1-9]\d{0,3})$/;
const DIGITS = 8;

/** Reads `2/4`; undefined for what is no shard. */
export function shardIn(text: string): Shard | undefined {
  const [, number, of] = SHARD.exec(text) ?? [];
  const shard = { number: Number(number), of: Number(of) };
  return number !== undefined && shard.number <= shard.of ? shard : undefined;
}

export const shardText = ({ number, of }: Shard): string => `${number}/${of}`;

/**
 * Does a file belong to a shard? By its path alone, so that all machines agree, whatever else lies on their disks: paths spread
 * evenly over the shards.
 */
export function isInShard(path: string, { number, of }: Shard): boolean {
  return parseInt(hashText(path).slice(0, DIGITS), 16) % of === number - 1;
}
