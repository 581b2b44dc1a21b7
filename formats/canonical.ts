import canonicalize from 'canonicalize';

/** JSON in canonical form (RFC 8785): the same content is the same text, whatever the order of its keys. */
export const canonical = (value: unknown): string => canonicalize(value) ?? 'null';
