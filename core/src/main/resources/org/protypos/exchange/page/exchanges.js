// The list of what the stand-in received, the newest first.

import { make } from './form.js';

/** XML with a line for each element, but for those that hold text. */
export function pretty(xml) {
  if (!xml.trimStart().startsWith('<')) {
    return xml;
  }
  const parsed = new DOMParser().parseFromString(xml, 'text/xml');
  if (parsed.querySelector('parsererror')) {
    return xml;
  }
  const indent = (element, depth) => {
    const nodes = [...element.childNodes];
    const mixed = nodes.some((node) => node.nodeType === Node.TEXT_NODE && node.data.trim() !== '');
    if (mixed || element.children.length === 0) {
      return;
    }
    nodes.filter((node) => node.nodeType === Node.TEXT_NODE).forEach((node) => node.remove());
    [...element.childNodes].forEach((node) => {
      element.insertBefore(parsed.createTextNode(`\n${'  '.repeat(depth + 1)}`), node);
      if (node.nodeType === Node.ELEMENT_NODE) {
        indent(node, depth + 1);
      }
    });
    element.append(parsed.createTextNode(`\n${'  '.repeat(depth)}`));
  };
  indent(parsed.documentElement, 0);
  return new XMLSerializer().serializeToString(parsed.documentElement);
}

/** What is wrong with a message, each with its places. */
export function problems(deviations, title) {
  return deviations.length === 0 ? null : make('div', { class: 'problems' },
    title ? make('strong', {}, title) : null,
    ...deviations.map((one) => make('p', { class: 'problem' },
      `${one.path}: ${one.came}${one.expected ? `; expected is ${one.expected}` : ''}`,
      one.place || one.contract
        ? make('span', { class: 'quiet' }, ` (${[one.place && `line ${one.place}`, one.contract].filter(Boolean).join(', ')})`)
        : null)));
}

function message(title, text) {
  return text ? make('details', {}, make('summary', {}, title), make('pre', { tabindex: 0 }, pretty(text))) : null;
}

function entry(exchange) {
  const name = exchange.operation ?? 'fits no operation';
  const time = new Date(exchange.at).toLocaleTimeString();
  return make('li', { 'data-number': exchange.number },
    make('details', {},
      make('summary', {},
        make('span', { class: exchange.sound ? 'good' : 'bad', role: 'img', 'aria-label': exchange.sound ? 'as the contract says' : 'not as the contract says' },
          exchange.sound ? '✓' : '✗'),
        make('span', {}, name),
        make('span', { class: 'when' }, time)),
      make('p', { class: 'quiet' }, `number ${exchange.number}, at the port ${exchange.port}`),
      problems(exchange.deviations, 'The request'),
      problems(exchange.answered, 'The answer'),
      exchange.failure && exchange.deviations.length === 0 ? make('p', { class: 'problem' }, exchange.failure) : null,
      message('request', exchange.request),
      message('answer', exchange.answer)));
}

/**
 * Looks for new exchanges now and then, as long as somebody looks at the page; a contract that is another than at the beginning is
 * looked at anew.
 */
export function watch(list, state, turn) {
  let last = 0;
  let wrong = 0;
  let looking = false;
  const look = async () => {
    if (looking) {
      return;
    }
    looking = true;
    try {
      const { exchanges, turn: now } = await (await fetch(`/stand-in/received?after=${last}`)).json();
      if (now !== turn) {
        location.reload();
      }
      for (const exchange of exchanges) {
        last = exchange.number;
        wrong += exchange.sound ? 0 : 1;
        list.prepend(entry(exchange));
        if (list.children.length > 200) {
          list.lastElementChild.remove();
        }
      }
      if (exchanges.length > 0) {
        state.textContent = `${last} so far, ${wrong === 0 ? 'all' : `${last - wrong}`} as the contract says.`;
      }
      state.classList.remove('bad');
    } catch {
      state.textContent = 'The stand-in does not answer any more.';
      state.classList.add('bad');
    }
    looking = false;
  };
  setInterval(() => { if (!document.hidden) { look(); } }, 1000);
  look();
  return look;
}
