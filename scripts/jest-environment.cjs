// Where test files run that need no browser. Jest's own environment runs them in a context of its own, in which every look at a global (Map, JSON, Math…)
// goes through two layers of interceptors: computing takes twice as long there. This one runs them in the context of the process, as the server and the
// command line run. Each file still gets its own modules; what it adds to the globals or to process.env is taken away after it.
const process = require('node:process');
const vm = require('node:vm');
const { ModernFakeTimers } = require('@jest/fake-timers');
const { ModuleMocker } = require('jest-mock');

// Jest compiles modules for the context that it is given, and can be given none: a mark stands for the one of the process.
const HERE = Object.freeze({ context: 'of the process' });
const compile = vm.compileFunction;
vm.compileFunction = (code, names, options) =>
  compile(
    code,
    names,
    options?.parsingContext === HERE ? { ...options, parsingContext: undefined } : options,
  );

module.exports = class {
  global = globalThis;
  /** Jest has two kinds of fake timers; the old kind is used nowhere. */
  fakeTimers = null;

  constructor({ projectConfig }) {
    this.globals = new Map(
      Object.getOwnPropertyNames(globalThis).map((name) => [
        name,
        Object.getOwnPropertyDescriptor(globalThis, name),
      ]),
    );
    this.env = { ...process.env };
    this.moduleMocker = new ModuleMocker(globalThis);
    this.fakeTimersModern = new ModernFakeTimers({ config: projectConfig, global: globalThis });
  }

  async setup() {}

  async teardown() {
    this.fakeTimersModern.dispose();
    for (const name of Object.getOwnPropertyNames(globalThis)) {
      const before = this.globals.get(name);
      const now = Object.getOwnPropertyDescriptor(globalThis, name);
      if (!now.configurable) continue;
      if (!before) delete globalThis[name];
      else if (before.value !== now.value || before.get !== now.get)
        Object.defineProperty(globalThis, name, before);
    }
    for (const name of Object.keys(process.env)) if (!(name in this.env)) delete process.env[name];
    Object.assign(process.env, this.env);
  }

  exportConditions() {
    return ['node', 'node-addons'];
  }

  getVmContext() {
    return HERE;
  }
};
