"""The co-operative's data mapper, version 2. What it had in version 1 still works, and warns."""

import sqlite3
import typing
import warnings


def _old(name):
    warnings.warn(f"{name} is of version 1", DeprecationWarning, stacklevel=3)


class Whole:
    sql = "INTEGER"


class Number:
    sql = "REAL"


class Text:
    def __init__(self, length=None):
        self.length = length
        self.sql = f"VARCHAR({length})" if length else "TEXT"


class Remark(Text):
    """A text of any length."""


class link:
    """A key of another table: "keeper.id"."""

    def __init__(self, to):
        self.to = to


class _Column:
    def __init__(self, *parts, key=False, missing=None, preset=None):
        self.type = next((part for part in parts if not isinstance(part, link)), None)
        self.link = next((part for part in parts if isinstance(part, link)), None)
        self.key, self.missing, self.preset = key, missing, preset

    def __set_name__(self, owner, name):
        self.owner, self.name = owner, name

    def __get__(self, item, owner):
        return self if item is None else item.__dict__.get(self.name)

    def __set__(self, item, value):
        item.__dict__[self.name] = value

    def __eq__(self, value):
        return _Test(f"{self.name} = ?", value)

    def __gt__(self, value):
        return _Test(f"{self.name} > ?", value)

    @property
    def sql(self):
        kind = self.type() if isinstance(self.type, type) else self.type
        parts = [self.name, kind.sql, "PRIMARY KEY" if self.key else "" if self.missing else "NOT NULL"]
        return " ".join(part for part in parts if part)


class _Test:
    def __init__(self, sql, value):
        self.sql, self.value = sql, value


class _Related:
    def __init__(self, to, many=None):
        self.to, self.many = to, many

    def __set_name__(self, owner, name):
        self.owner = owner

    def __get__(self, item, owner):
        if item is None:
            return self
        other = next(c for c in item._session._classes if c.__name__ == self.to)
        if self.many:
            back = next(c for c in _columns(other) if c.link and c.link.to == f"{owner.table}.id")
            return item._session.all(select(other).where(back == item.id))
        own = next(c for c in _columns(owner) if c.link and c.link.to == f"{other.table}.id")
        key = getattr(item, own.name)
        return None if key is None else item._session.get(other, key)


def _columns(model):
    return [value for value in vars(model).values() if isinstance(value, _Column)]


class Model:
    """What models are derived from. Their columns are what is annotated as Typed; one that may be missing is Optional."""

    def __init_subclass__(cls):
        for name, hint in vars(cls).get("__annotations__", {}).items():
            value = vars(cls).get(name)
            inner = typing.get_args(hint)[0] if typing.get_args(hint) else None
            may_be_missing = type(None) in typing.get_args(inner)
            if isinstance(value, _Column):
                value.missing = may_be_missing
                kind = next((one for one in typing.get_args(inner) if one is not type(None)), inner)
                value.type = value.type or {int: Whole, float: Number, str: Text}[kind]
            elif isinstance(value, _Related):
                value.many = typing.get_origin(inner) is list

    def __init__(self, **values):
        for column in _columns(type(self)):
            setattr(self, column.name, values.get(column.name, column.preset))


class Typed(typing.Generic[typing.TypeVar("T")]):
    pass


def field(*parts, **words):
    return _Column(*parts, **words)


def related(to, many=None):
    return _Related(to, many)


class select:
    def __init__(self, model):
        self.model, self.tests, self.order = model, [], None

    def where(self, *tests):
        self.tests.extend(tests)
        return self

    def order_by(self, column):
        self.order = column
        return self


class Session:
    """A connection, to be used in `with`."""

    def __init__(self, path, classes):
        self._classes, self._db = classes, sqlite3.connect(path)
        for model in classes:
            self._db.execute(f"CREATE TABLE {model.table} ({', '.join(c.sql for c in _columns(model))})")

    def __enter__(self):
        return self

    def __exit__(self, *_):
        self.close()

    def close(self):
        self._db.close()

    def add(self, *items):
        for item in items:
            names = [column.name for column in _columns(type(item))]
            places = ", ".join("?" for _ in names)
            values = [getattr(item, name) for name in names]
            self._db.execute(f"INSERT INTO {type(item).table} VALUES ({places})", values)

    def all(self, statement):
        model, names = statement.model, [column.name for column in _columns(statement.model)]
        sql = f"SELECT {', '.join(names)} FROM {model.table}"
        if statement.tests:
            sql += " WHERE " + " AND ".join(test.sql for test in statement.tests)
        if statement.order is not None:
            sql += f" ORDER BY {statement.order.name}"
        rows = self._db.execute(sql, [test.value for test in statement.tests])
        items = [model(**dict(zip(names, row))) for row in rows]
        for item in items:
            item._session = self
        return items

    def first(self, statement):
        return next(iter(self.all(statement)), None)

    def count(self, statement):
        return len(self.all(statement))

    def get(self, model, key):
        own = next(column for column in _columns(model) if column.key)
        return self.first(select(model).where(own == key))

    def query(self, model):
        _old("query")
        return _Query(self, select(model))


# Version 1.


def make_base():
    _old("make_base")
    return type("Base", (), {"__init__": Model.__init__})


def Column(*parts, nullable=True, primary=False, default=None):
    _old("Column")
    column = _Column(*parts, key=primary, preset=default)
    column.missing = nullable and not primary
    return column


class _Query:
    def __init__(self, session, statement):
        self._session, self._statement = session, statement

    def filter(self, *tests):
        self._statement.where(*tests)
        return self

    def order_by(self, column):
        self._statement.order_by(column)
        return self

    def all(self):
        return self._session.all(self._statement)

    def first(self):
        return self._session.first(self._statement)

    def count(self):
        return self._session.count(self._statement)

    def get(self, key):
        return self._session.get(self._statement.model, key)
