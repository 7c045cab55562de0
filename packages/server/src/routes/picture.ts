// A stored picture as an answer.
import type { FastifyReply } from 'fastify';
import type { OutputFormat } from '@dusky-otter/core/contract';
import { MIME } from '@dusky-otter/core/weight';

/** A drawing that is opened by itself is a document: whatever cleaning missed can neither act nor fetch. */
const STILL = "default-src 'none'; style-src 'unsafe-inline'; img-src data:; sandbox";

export function sendPicture(reply: FastifyReply, bytes: Buffer, format: OutputFormat): FastifyReply {
  if (format === 'svg') void reply.header('content-security-policy', STILL);
  return reply.type(MIME[format]).send(bytes);
}
