import { join } from 'node:path';
import express, { Router } from 'express';

/** The screens in the hides: a site that is the files of a folder of this machine, and nothing else. */
export function hideScreens(): Router {
  return Router().use(express.static(join(process.env.PLACARD_DATA ?? 'var', 'sites', 'hides')));
}
