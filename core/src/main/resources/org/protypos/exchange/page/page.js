// The page of a stand-in: what the contract offers, a request to fill in and send, and what came back.

import { Form, make, wrappable } from './form.js';
import { pretty, problems, watch } from './exchanges.js';

const main = document.getElementById('main');
const types = new Map();
const kept = new Map();
let operations = [];
let token = '';

async function ask(path, fields) {
  const answer = fields
    ? await fetch(`/stand-in/${path}`, { method: 'POST', body: new URLSearchParams({ ...fields, token }) })
    : await fetch(`/stand-in/${path}`);
  if (!answer.ok) {
    throw new Error(await answer.text());
  }
  return answer.json();
}

function typeOf(number) {
  if (!types.has(number)) {
    types.set(number, ask(`type?number=${number}`));
  }
  return types.get(number);
}

function copyButton(text, what) {
  const button = make('button', {
    type: 'button', class: 'small', 'aria-label': `copy ${what}`,
    onclick: async () => {
      await navigator.clipboard.writeText(typeof text === 'function' ? text() : text);
      button.textContent = 'copied';
      setTimeout(() => { button.textContent = 'copy'; }, 1500);
    },
  }, 'copy');
  return button;
}

/** So many ports are all open; of more only the one whose operation is shown. */
const MOST_OPEN_PORTS = 4;

function navigation(contract) {
  const services = document.getElementById('services');
  const ports = contract.services.flatMap((service) => service.ports).length;
  operations = [];
  for (const service of contract.services) {
    services.append(make('h2', {}, service.name));
    if (service.documentation) {
      services.append(make('p', { class: 'hint' }, service.documentation));
    }
    for (const port of service.ports) {
      const list = make('ul');
      for (const operation of port.operations) {
        operations.push({ ...operation, port, service });
        list.append(make('li', {}, make('a', { href: `#${operation.number}`, title: operation.documentation }, ...wrappable(operation.name))));
      }
      const title = [...wrappable(port.name), ` · ${(port.operations[0]?.protocol ?? '').replace(' ', '\u00a0')}`];
      services.append(...(ports > MOST_OPEN_PORTS
        ? [make('details', { class: 'port' }, make('summary', {}, ...title), list)] : [make('h3', {}, ...title), list]));
    }
  }
  const count = operations.length;
  document.getElementById('summary').textContent = `${count} ${count === 1 ? 'operation' : 'operations'} at `
    + `${ports} ${ports === 1 ? 'port' : 'ports'}, answered by this machine`;
  if (count > 12) {
    const find = document.getElementById('find');
    document.getElementById('finder').hidden = false;
    find.addEventListener('input', () => {
      const wanted = find.value.toLowerCase();
      services.querySelectorAll('li').forEach((item) => { item.hidden = !item.textContent.toLowerCase().includes(wanted); });
      services.querySelectorAll('.port').forEach((port) => {
        port.open = wanted !== '' ? port.querySelector('li:not([hidden])') !== null : port.querySelector('[aria-current]') !== null;
      });
    });
  }
}

/** The values of an answer as a tree of names and values. */
function tree(value, key) {
  const name = make('span', { class: 'key' }, `${key} `);
  if (Array.isArray(value)) {
    return value.flatMap((one) => tree(one, key));
  }
  if (value === null || typeof value !== 'object') {
    return [make('li', {}, name, value === null ? make('em', {}, 'nil') : String(value))];
  }
  const inner = Object.entries(value).flatMap(([inside, one]) => tree(one, inside));
  return [make('li', {}, name, make('ul', {}, ...inner))];
}

function answer(came) {
  const parts = [];
  if (came.problems?.length > 0) {
    return [make('div', { class: 'problems' }, ...came.problems.map((one) => make('p', { class: 'problem' }, one)))];
  }
  const facts = `${came.status ? `HTTP ${came.status}` : 'no answer'} after ${(came.micros / 1000).toFixed(1)} ms`;
  if (came.failure) {
    parts.push(make('p', { class: 'bad' }, came.failure));
  } else if (came.fault !== null) {
    parts.push(make('p', { class: 'bad' }, 'Fault: ', came.fault));
  } else if (came.body.length === 0) {
    parts.push(make('p', {}, 'Sent; there is no answer.'));
  }
  parts.push(problems(came.deviations, 'The answer is not as the contract says'));
  if (came.body.length > 0) {
    parts.push(make('ul', { class: 'tree' }, ...came.body.flatMap((part) => Object.entries(part).flatMap(([key, value]) => tree(value, key)))));
  }
  for (const [part, what] of Object.entries(came.attached ?? {})) {
    parts.push(make('p', {}, `beside it: ${part} (${what})`));
  }
  if (came.text) {
    parts.push(make('details', {}, make('summary', {}, 'as XML'), make('pre', { tabindex: 0 }, pretty(came.text))));
  }
  parts.push(make('p', { class: 'quiet' }, facts));
  return parts.filter((part) => part !== null);
}

async function show(number) {
  const operation = operations.find((one) => one.number === number);
  if (!operation) {
    return;
  }
  document.querySelectorAll('nav a').forEach((link) => {
    if (link.getAttribute('href') === `#${number}`) {
      link.setAttribute('aria-current', 'page');
      const port = link.closest('.port');
      if (port) {
        port.open = true;
      }
    } else {
      link.removeAttribute('aria-current');
    }
  });
  document.title = `${operation.name} · Stand-in`;
  const spec = kept.get(number) ?? await ask(`operation?operation=${number}`);
  kept.set(number, spec);
  const xml = make('textarea', { class: 'xml', id: 'xml', spellcheck: 'false', rows: 14 });
  const trouble = make('div', { class: 'problems', role: 'status' });
  const came = make('div', { id: 'answer', role: 'status' });
  let timer;
  let turn = 0;
  const build = async () => {
    const mine = ++turn;
    spec.value = form.value;
    const built = await ask('request', { operation: number, value: JSON.stringify(form.value) });
    if (mine !== turn) {
      return;
    }
    xml.value = built.xml;
    const left = form.mark(built.deviations);
    trouble.replaceChildren(...built.problems.map((one) => make('p', { class: 'problem' }, one)),
      ...left.map((one) => make('p', { class: 'problem' }, `${one.path}: ${one.came}`)));
  };
  const form = new Form(spec, spec.value, typeOf, () => { clearTimeout(timer); timer = setTimeout(build, 150); });
  const send = make('button', {
    type: 'button', class: 'send',
    onclick: async () => {
      clearTimeout(timer);
      send.disabled = true;
      // What the fields say is sent as they are now, however quickly somebody is.
      if (!edited) {
        await build();
      }
      try {
        came.replaceChildren(...answer(await ask('call', {
          operation: number, xml: xml.value, value: JSON.stringify(form.value),
        })));
      } catch (failure) {
        came.replaceChildren(make('p', { class: 'bad' }, failure.message));
      }
      send.disabled = false;
      look();
    },
  }, 'Send');
  let edited = false;
  xml.addEventListener('input', () => { edited = true; });
  form.element.addEventListener('input', () => { edited = false; });
  main.replaceChildren(
    make('h2', {}, operation.name),
    operation.documentation ? make('p', {}, operation.documentation) : '',
    make('dl', { class: 'facts' },
      make('dt', {}, 'Address'), make('dd', {}, operation.port.address), copyButton(operation.port.address, 'the address'),
      make('dt', {}, 'Contract'), make('dd', {}, make('a', { href: operation.port.address }, `GET ${operation.port.address}`)),
      copyButton(operation.port.address, 'the address of the contract')),
    reading ? make('p', {}, make('a', { href: `/stand-in/read#${encodeURIComponent(operation.id)}` }, 'What is in it')) : '',
    make('h3', {}, 'Request'),
    form.element,
    trouble,
    make('details', {}, make('summary', {}, 'as XML'),
      make('label', { for: 'xml', class: 'quiet' }, 'What is sent; it may be edited, until a field changes.'),
      xml, make('div', {}, copyButton(() => xml.value, 'the request'))),
    make('div', { class: 'actions' }, send, operation.oneWay ? make('span', { class: 'quiet' }, 'There is no answer to it.') : ''),
    make('h3', {}, 'Answer'),
    came);
  came.append(make('p', { class: 'quiet' }, 'Not sent yet.'));
  await form.render();
  await build();
}

/** The operation that an address means: by its number, or by what the contract to read calls it. */
function wanted() {
  const hash = location.hash.slice(1);
  const called = hash.startsWith('of=') ? decodeURIComponent(hash.slice(3)) : null;
  const one = operations.find((operation) => (called ? operation.id === called : String(operation.number) === hash));
  return (one ?? operations[0])?.number;
}

async function route() {
  const number = wanted();
  try {
    await show(number);
  } catch (failure) {
    main.replaceChildren(make('p', { class: 'bad' }, `The stand-in does not answer: ${failure.message}`));
  }
}

const contract = await ask('contract');
token = contract.token;
const reading = contract.reading;
document.getElementById('reading').hidden = !reading;
const look = watch(document.getElementById('exchanges'), document.getElementById('received-state'), contract.turn);
navigation(contract);
if (matchMedia('(max-width: 44rem)').matches) {
  document.getElementById('menu').open = false;
}
window.addEventListener('hashchange', async () => { await route(); main.focus(); });
await route();
