import type { NextFunction, Request, Response } from 'express';
import { ProblemError } from './problem';

/**
 * Ends a request whose body stops coming: nobody holds a place by sending slowly. `silence` is in milliseconds without a byte;
 * how long the whole takes does not count.
 */
export const bodyPatience =
  (silence: number) =>
  (req: Request, res: Response, next: NextFunction): void => {
    if (req.headers['content-length'] === undefined && req.headers['transfer-encoding'] === undefined)
      return next();
    let seen = req.socket.bytesRead;
    const timer = setInterval(() => {
      if (req.readableEnded || req.destroyed) return clearInterval(timer);
      if (req.socket.bytesRead !== seen) return void (seen = req.socket.bytesRead);
      clearInterval(timer);
      const late = new ProblemError(
        408,
        `Nothing came for ${Math.round(silence / 1000)} seconds, so that the request was ended. Try again.`,
      );
      if (res.headersSent) return void req.destroy(late);
      res
        .status(408)
        .set('Connection', 'close')
        .type('application/problem+json')
        .end(JSON.stringify(late.problem), () => req.destroy(late));
    }, silence);
    timer.unref();
    const stop = () => clearInterval(timer);
    req.on('end', stop);
    res.on('close', stop);
    next();
  };
