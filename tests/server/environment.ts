// Before each file: the settings of the application that it has to itself, as anything of the server reads them from here.
import { given } from './given';

Object.assign(process.env, given.environment);
