import type { Request, RequestHandler, Response, Router } from 'express';
import type * as v from 'valibot';
import {
  type AnswerOf,
  type BodyOf,
  OPERATIONS,
  type Operation,
  type OperationKey,
  type PathNames,
  type QueryOf,
  type Readable,
} from '#api/operations.ts';
import { checked } from './problem.ts';

type Answer<Key extends OperationKey> = [AnswerOf<Key>] extends [never]
  ? unknown
  : Readable<v.InferInput<AnswerOf<Key>>>;

type Asked<Key extends OperationKey> = Request<
  Request['params'],
  unknown,
  [BodyOf<Key>] extends [never] ? unknown : v.InferOutput<BodyOf<Key>>
> & {
  readonly params: PathNames<Key>;
  readonly query: [QueryOf<Key>] extends [never] ? unknown : v.InferOutput<QueryOf<Key>>;
};

/**
 * Registers the route of an operation. Its handler runs behind the guards, and is handed the query and the body as the
 * operation's own schemas read them; what does not fit them is answered with 422 before.
 */
export function route<Key extends OperationKey>(
  router: Router,
  key: Key,
  ...handlers: readonly [
    ...guards: RequestHandler[],
    handle: (request: Asked<Key>, response: Response<Answer<Key>>) => unknown,
  ]
): void {
  const [method, path] = methodAndPath(key);
  const guards = handlers.slice(0, -1) as RequestHandler[];
  const handle = handlers.at(-1) as RequestHandler;
  router[method](path, ...guards, readAsked(key), handle);
}

function methodAndPath(key: OperationKey) {
  const at = key.indexOf(' ');
  const method = key.slice(0, at) as 'get' | 'post' | 'put' | 'patch' | 'delete';
  return [method, key.slice(at + 1).replace(/\{(\w+)\}/g, ':$1')] as const;
}

function readAsked(key: OperationKey): RequestHandler {
  const operation: Operation = OPERATIONS[key];
  return (request, _response, next) => {
    // Express reads the query anew at each look at it, unless the request has one of its own.
    if (operation.query)
      Object.defineProperty(request, 'query', { value: checked(operation.query, request.query) });
    if (operation.body) request.body = checked(operation.body, request.body);
    next();
  };
}
