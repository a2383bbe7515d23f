/** In which buckets a name is kept follows from what is kept of it: no index by heading has to be written for each of them. */
export const nameBucketsOnce: readonly string[] = [`DROP INDEX alike_buckets_heading`];
