import type { FastifyReply } from 'fastify'

/**
 * Leads to another address, for as long as it is so: names and hosts can change back, and a browser that kept the answer would
 * lead in a circle then (RFC 9110 section 15.4.2; RFC 9111 section 5.2.2.4).
 */
export const redirect = (reply: FastifyReply, address: string): FastifyReply =>
  reply.code(301).headers({ location: address, 'cache-control': 'no-cache' }).send()
