// Fields for the values of a message, made of what the contract says of its types. The state is the JSON that the
// mapping of messages takes: members are elements, @name is an attribute, #text the text beside attributes.

let numbers = 0;

export function make(tag, attributes = {}, ...children) {
  const element = document.createElement(tag);
  for (const [name, value] of Object.entries(attributes)) {
    if (name.startsWith('on')) {
      element.addEventListener(name.slice(2), value);
    } else if (value !== false && value !== null && value !== undefined) {
      element.setAttribute(name, value === true ? '' : value);
    }
  }
  element.append(...children.filter((child) => child !== null && child !== undefined));
  return element;
}

const copy = (value) => JSON.parse(JSON.stringify(value ?? ''));
const isObject = (value) => typeof value === 'object' && value !== null && !Array.isArray(value);

/** A name that may go on in the next line between its words, and nowhere in them. */
export function wrappable(name) {
  return name.split(/(?<=[\p{Ll}\d])(?=\p{Lu})|(?<=[._:-])/u).flatMap((word, index) => (index > 0 ? [make('wbr'), word] : [word]));
}

/** Puts what may be added side by side into one row. */
function gathered(parts) {
  const all = [];
  for (const part of parts) {
    const last = all[all.length - 1];
    if (last && part.classList.contains('adds') && last.classList.contains('adds')) {
      last.append(...part.childNodes);
    } else {
      all.push(part);
    }
  }
  return all;
}

function keysOf(node) {
  return node.kind === 'element' ? [node.key] : (node.parts ?? []).flatMap(keysOf);
}

function namesOf(node) {
  return node.kind === 'element' ? [node.name] : (node.parts ?? []).flatMap(namesOf);
}

export class Form {
  /**
   * @param typeOf gives a promise of a type by its number
   * @param changed is called when a value has changed
   */
  constructor(spec, value, typeOf, changed) {
    this.spec = spec;
    this.value = value;
    this.typeOf = typeOf;
    this.changed = changed;
    this.element = make('div', { class: 'form' });
  }

  async render() {
    const focused = document.activeElement?.dataset?.focus;
    const parts = [];
    if (this.spec.type !== undefined) {
      parts.push(...await this.content(this, 'value', this.spec.type, ''));
    }
    for (const part of this.spec.parts) {
      parts.push(await this.node(this.object(), part, ''));
    }
    if (this.spec.header.length > 0) {
      const header = make('fieldset', {}, make('legend', {}, 'Header'));
      const blocks = this.object()['#header'] ?? {};
      const settled = new Proxy(blocks, {
        set: (target, key, one) => { target[key] = one; this.object()['#header'] = target; return true; },
        deleteProperty: (target, key) => {
          delete target[key];
          if (Object.keys(target).length === 0) {
            delete this.object()['#header'];
          }
          return true;
        },
      });
      for (const block of this.spec.header) {
        header.append(await this.node(settled, block, '/Header'));
      }
      parts.push(header);
    }
    for (const part of this.spec.attached) {
      parts.push(this.attachment(part));
    }
    if (parts.length === 0) {
      parts.push(make('p', { class: 'quiet' }, 'The request is empty.'));
    }
    this.element.replaceChildren(...gathered(parts));
    if (focused) {
      this.element.querySelector(`[data-focus="${CSS.escape(focused)}"]`)?.focus();
    }
  }

  /** The message as an object: a text becomes the text of one, so that header blocks can stand beside it. */
  object() {
    if (!isObject(this.value)) {
      this.value = { '#text': this.value };
    }
    return this.value;
  }

  async again() {
    await this.render();
    this.changed();
  }

  async fresh(number) {
    const type = await this.typeOf(number);
    if (type.abstract && type.derived.length > 0) {
      return this.freshOf(type.derived[0]);
    }
    return copy(type.sample);
  }

  async freshOf(derived) {
    const sample = copy((await this.typeOf(derived.type)).sample);
    return { '@xsi:type': derived.name, ...(isObject(sample) ? sample : { '#text': sample }) };
  }

  /** Puts into an object what a part of a content model needs to be there. */
  async fill(holder, node) {
    if (node.kind === 'element') {
      const value = await this.fresh(node.type);
      holder[node.key] = node.most === 1 ? value : [value];
    } else if (node.kind === 'choice') {
      await this.fill(holder, node.parts[0]);
    } else {
      const needed = (node.parts ?? []).filter((part) => !(part.optional || part.least === 0));
      for (const part of needed.length > 0 ? needed : (node.parts ?? []).slice(0, 1)) {
        await this.fill(holder, part);
      }
    }
  }

  button(text, label, focus, act) {
    return make('button', {
      type: 'button', class: 'small', 'aria-label': label, 'data-focus': focus,
      onclick: async () => { await act(); await this.again(); },
    }, text);
  }

  async node(holder, node, path) {
    if (node.kind === 'element') {
      return node.most === 1 ? this.single(holder, node, path) : this.several(holder, node, path);
    }
    if (node.kind === 'any') {
      return make('p', { class: 'hint' }, 'Other elements may stand here: write them into the XML below.');
    }
    return node.kind === 'choice' && !node.repeats
      ? this.choice(holder, node, path)
      : this.group(holder, node, path);
  }

  async group(holder, node, path) {
    const there = keysOf(node).some((key) => key in holder);
    const loose = node.kind === 'choice' || node.repeats;
    if (node.optional && !there && !loose) {
      return this.add(namesOf(node).join(', '), `${path}+${keysOf(node)}`, () => this.fill(holder, node));
    }
    const parts = [];
    if (node.optional && there && !loose && node.parts.length > 1) {
      const names = namesOf(node).join(', ');
      parts.push(make('div', { class: 'more' }, this.button(`remove ${names}`, `remove ${names}`, `${path}+${keysOf(node)}`,
        () => keysOf(node).forEach((key) => delete holder[key]))));
    }
    for (const part of node.parts) {
      const free = loose && part.kind === 'element' ? { ...part, least: 0 } : part;
      parts.push(await this.node(holder, free, path));
    }
    const all = gathered(parts);
    return all.length === 1 ? all[0] : make('div', {}, ...all);
  }

  async choice(holder, node, path) {
    const at = node.parts.findIndex((part) => keysOf(part).some((key) => key in holder));
    const id = `choice-${++numbers}`;
    const options = node.parts.map((part, index) => make('option', { value: index, selected: index === at },
      namesOf(part).join(', ') || 'other elements'));
    if (at < 0 || node.optional) {
      options.unshift(make('option', { value: -1, selected: at < 0 }, 'none'));
    }
    const select = make('select', {
      id, 'data-focus': `${path}?${keysOf(node)}`,
      onchange: async () => {
        keysOf(node).forEach((key) => delete holder[key]);
        if (Number(select.value) >= 0) {
          await this.fill(holder, node.parts[Number(select.value)]);
        }
        await this.again();
      },
    }, ...options);
    const around = make('div', {}, make('div', { class: 'field' }, make('label', { for: id }, 'One of'), select));
    if (at >= 0) {
      around.append(await this.node(holder, node.parts[at], path));
    }
    return around;
  }

  add(name, focus, act) {
    return make('div', { class: 'more adds' }, this.button(`+ ${name}`, `add ${name}`, focus, act));
  }

  async single(holder, node, path) {
    if (!(node.key in holder)) {
      return this.add(node.name, `${path}+${node.key}`, () => this.fill(holder, node));
    }
    const does = [];
    if (node.least === 0) {
      does.push(this.button('remove', `remove ${node.name}`, `${path}+${node.key}`, () => { delete holder[node.key]; }));
    }
    return this.item(holder, node.key, node, node.name, `${path}/${node.name}`, does);
  }

  async several(holder, node, path) {
    if (node.key in holder && !Array.isArray(holder[node.key])) {
      holder[node.key] = [holder[node.key]];
    }
    const items = holder[node.key] ?? [];
    const another = node.most < 0 || items.length < node.most ? this.add(node.name, `${path}+${node.key}`, async () => {
      holder[node.key] = [...items, await this.fresh(node.type)];
    }) : null;
    if (items.length === 0 && another) {
      return another;
    }
    const around = make('div');
    for (let index = 0; index < items.length; index++) {
      const label = items.length === 1 ? node.name : `${node.name} ${index + 1}`;
      const place = `${path}/${node.name}${items.length === 1 ? '' : `[${index + 1}]`}`;
      const does = [];
      if (items.length > node.least) {
        does.push(this.button('remove', `remove ${label}`, `${path}+${node.key}`, () => {
          items.splice(index, 1);
          if (items.length === 0) {
            delete holder[node.key];
          }
        }));
      }
      around.append(await this.item(items, index, node, label, place, does));
    }
    around.append(...[another].filter((one) => one));
    return around;
  }

  /** One element: a row when it is one value, a frame when it holds others. */
  async item(holder, key, node, label, path, does) {
    if (node.nillable) {
      const nil = holder[key] === null;
      does.push(this.button(nil ? 'fill in' : 'nil', `${nil ? 'fill in' : 'nil'} ${label}`, `${path}0`, async () => {
        holder[key] = nil ? await this.fresh(node.type) : null;
      }));
    }
    const hints = [node.documentation];
    if (holder[key] === null) {
      return this.row(label, make('em', { class: 'quiet' }, 'nil'), does, hints, path);
    }
    const type = await this.typeOf(node.type);
    const bare = type.simple && !isObject(holder[key]);
    if (bare && type.derived.length > 0 && node.fixed === null) {
      does.push(this.button('type', `another type for ${label}`, `${path}:type`, async () => {
        holder[key] = await this.freshOf(type.derived[0]);
      }));
    }
    const plain = bare || (type.text && type.attributes.length === 0 && type.derived.length === 0);
    if (plain || (type.open && type.content.length === 0 && !isObject(holder[key]))) {
      const field = type.text ?? { kind: 'text', hint: '', values: [] };
      return this.row(label, this.input(field, holder, key, path, node.fixed), does, [...hints, field.hint], path);
    }
    return make('fieldset', { 'data-path': path },
      make('legend', {}, make('span', {}, ...wrappable(label)), ...does),
      node.documentation ? make('p', { class: 'hint' }, node.documentation) : null,
      ...await this.content(holder, key, node.type, path));
  }

  /** What stands in an element: the choice of its type, its attributes, its text or its elements. */
  async content(holder, key, number, path) {
    const declared = await this.typeOf(number);
    let value = holder[key];
    const parts = [];
    let type = declared;
    if (declared.derived.length > 0) {
      let chosen = isObject(value) ? declared.derived.find((one) => one.name === value['@xsi:type']) : undefined;
      if (!chosen && declared.abstract) {
        chosen = declared.derived[0];
        holder[key] = await this.freshOf(chosen);
        value = holder[key];
      }
      type = chosen ? await this.typeOf(chosen.type) : declared;
      parts.push(this.types(declared, chosen, holder, key, number, path));
    }
    if (type.documentation) {
      parts.push(make('p', { class: 'hint' }, type.documentation));
    }
    if (!type.text && type.open && type.content.length === 0) {
      const text = isObject(value) ? 'What stands here the form cannot show: edit the XML below.' : null;
      parts.push(text ? make('p', { class: 'hint' }, text)
        : this.row('content', this.input({ kind: 'text', hint: '', values: [] }, holder, key, path), [], [], path));
      return parts;
    }
    if (type.text && type.attributes.length === 0 && !isObject(value)) {
      parts.push(this.row('value', this.input(type.text, holder, key, path), [], [type.text.hint], path));
      return parts;
    }
    if (!isObject(value)) {
      holder[key] = type.text ? { '#text': value } : {};
      value = holder[key];
    }
    if (type.text) {
      value['#text'] ??= '';
      parts.push(this.row('value', this.input(type.text, value, '#text', path), [], [type.text.hint], path));
    }
    for (const attribute of type.attributes) {
      parts.push(this.attribute(value, attribute, path));
    }
    if ('#content' in value) {
      parts.push(make('p', { class: 'hint' }, 'Text and elements are mixed here: edit the XML below.'));
      return parts;
    }
    const seen = new Set();
    for (const node of type.content) {
      if (node.kind !== 'element' || !seen.has(node.key)) {
        parts.push(await this.node(value, node, path));
      }
      keysOf(node).forEach((one) => seen.add(one));
    }
    return gathered(parts);
  }

  types(declared, chosen, holder, key, number, path) {
    const id = `type-${++numbers}`;
    const options = declared.derived.map((one) => make('option', { selected: one === chosen }, one.name));
    if (!declared.abstract) {
      options.unshift(make('option', { value: '', selected: !chosen }, declared.name || 'as declared'));
    }
    const select = make('select', {
      id, 'data-focus': `${path}:type`,
      onchange: async () => {
        const one = declared.derived.find((derived) => derived.name === select.value);
        holder[key] = one ? await this.freshOf(one) : await this.fresh(number);
        await this.again();
      },
    }, ...options);
    return make('div', { class: 'field' }, make('label', { for: id }, 'Type'), select);
  }

  attribute(holder, attribute, path) {
    const place = `${path}/@${attribute.name}`;
    if (!(attribute.key in holder) && !attribute.required) {
      const first = attribute.text.values[0] ?? '';
      return this.add(`@${attribute.name}`, `${place}+`, () => { holder[attribute.key] = attribute.fixed ?? first; });
    }
    holder[attribute.key] ??= attribute.fixed ?? '';
    const does = attribute.required ? [] : [this.button('remove', `remove @${attribute.name}`, `${place}+`,
      () => { delete holder[attribute.key]; })];
    return this.row(`@${attribute.name}`, this.input(attribute.text, holder, attribute.key, place, attribute.fixed),
      does, [attribute.text.hint], place);
  }

  attachment(part) {
    const input = this.file((type, base64) => {
      const object = this.object();
      object['#attached'] = { ...object['#attached'], [part]: { type: type || 'application/octet-stream', base64 } };
      this.changed();
    });
    return this.row(part, input, [], ['travels beside the message; a sample until a file is chosen'], `#${part}`);
  }

  file(chosen) {
    const input = make('input', { type: 'file' });
    input.addEventListener('change', () => {
      const reader = new FileReader();
      reader.addEventListener('load', () => chosen(input.files[0].type, reader.result.replace(/^[^,]*,/, '')));
      if (input.files[0]) {
        reader.readAsDataURL(input.files[0]);
      }
    });
    return input;
  }

  row(label, control, does, hints, path) {
    const id = `field-${++numbers}`;
    const target = control.matches('input, select, textarea') ? control : control.querySelector('input, textarea');
    const texts = hints.filter((hint) => hint);
    const under = make('div', { class: 'under', id: `${id}-under` }, ...texts.map((hint) => make('p', { class: 'hint' }, hint)));
    if (target) {
      target.id = id;
      target.setAttribute('aria-describedby', `${id}-under`);
    }
    return make('div', { class: 'field', 'data-path': path },
      target ? make('label', { for: id }, ...wrappable(label)) : make('span', { class: 'name' }, ...wrappable(label)),
      control,
      does.length > 0 ? make('span', { class: 'does' }, ...does) : null,
      under);
  }

  input(field, holder, key, path, fixed) {
    const set = (value) => { holder[key] = value; this.changed(); };
    const value = holder[key] ?? '';
    const common = { 'data-focus': path, readonly: fixed !== null && fixed !== undefined };
    if (field.kind === 'choice') {
      const values = field.values.includes(String(value)) ? field.values : [String(value), ...field.values];
      const select = make('select', { ...common, onchange: () => set(select.value) },
        ...values.map((one) => make('option', { selected: one === String(value) }, one)));
      return select;
    }
    if (field.kind === 'boolean') {
      const box = make('input', {
        ...common, type: 'checkbox', checked: ['true', '1'].includes(String(value)), onchange: () => set(box.checked),
      });
      return make('span', { class: 'box' }, box);
    }
    if (['date', 'time', 'dateTime'].includes(field.kind)) {
      return this.moment(field.kind, String(value), common, set);
    }
    if (field.kind === 'base64Binary') {
      const text = make('textarea', { ...common, rows: 2, spellcheck: 'false', oninput: () => set(text.value) });
      text.value = value;
      return make('div', {}, text, this.file((type, base64) => { text.value = base64; set(base64); }));
    }
    const input = make('input', {
      ...common, type: 'text', value, autocomplete: 'off', oninput: () => set(input.value),
      inputmode: { whole: 'numeric', number: 'decimal' }[field.kind],
    });
    return input;
  }

  /** A date or a time with its zone; what the browser's own field cannot hold is edited as text. */
  moment(kind, value, common, set) {
    const [, moment, zone] = value.match(/^(.*?)(Z|[+-]\d\d:\d\d)?$/);
    const native = { date: 'date', time: 'time', dateTime: 'datetime-local' }[kind];
    const input = make('input', { ...common, type: native, value: moment, step: kind === 'date' ? null : 'any' });
    if (input.value === '' && moment !== '') {
      input.type = 'text';
      input.value = moment;
    }
    const where = make('input', {
      type: 'text', value: zone ?? '', placeholder: 'zone', 'aria-label': 'time zone, such as Z or +01:00', 'data-focus': `${common['data-focus']}~`,
    });
    const both = () => {
      const full = kind !== 'date' && /T?\d\d:\d\d$/.test(input.value) ? `${input.value}:00` : input.value;
      set(full + where.value);
    };
    input.addEventListener('input', both);
    where.addEventListener('input', both);
    return make('span', { class: 'pair' }, input, where);
  }

  /** Shows at the fields what is wrong with them; gives what fits none. */
  mark(deviations) {
    this.element.querySelectorAll('.problem').forEach((one) => one.remove());
    this.element.querySelectorAll('.wrong').forEach((one) => {
      one.classList.remove('wrong');
      one.querySelector('[aria-invalid]')?.removeAttribute('aria-invalid');
    });
    const left = [];
    for (const deviation of deviations) {
      const fields = [...this.element.querySelectorAll('[data-path]')]
        .filter((field) => field.dataset.path !== '' && deviation.path.endsWith(field.dataset.path))
        .sort((a, b) => a.dataset.path.length - b.dataset.path.length);
      // Of a frame and a row for the same, the row comes later.
      const field = fields.pop();
      if (!field) {
        left.push(deviation);
        continue;
      }
      const text = make('p', { class: 'problem' },
        deviation.came + (deviation.expected ? `; expected is ${deviation.expected}` : ''));
      field.classList.add('wrong');
      field.querySelector('input, select, textarea')?.setAttribute('aria-invalid', 'true');
      (field.querySelector(':scope > .under') ?? field).append(text);
    }
    return left;
  }
}
