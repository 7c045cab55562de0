// Kinds of columns that the models have.
import { DataTypes, type Model, type ModelAttributeColumnOptions } from 'sequelize';

/** A column that holds JSON as text: the driver's own JSON type answers differently from version to version. */
export function json(name: string): ModelAttributeColumnOptions {
  return {
    type: DataTypes.TEXT('long'),
    allowNull: true,
    get(this: Model) {
      const text = (this.getDataValue(name) ?? null) as string | null;
      return text === null ? null : (JSON.parse(text) as unknown);
    },
    set(this: Model, value: unknown) {
      this.setDataValue(name, value === null ? null : JSON.stringify(value));
    },
  };
}

// Functions, not constants: Sequelize writes into the column objects it is given.
export const id = () => ({ type: DataTypes.INTEGER.UNSIGNED, autoIncrement: true, primaryKey: true });
export const number = () => ({ type: DataTypes.INTEGER.UNSIGNED, allowNull: false });
export const hash = () => ({ type: DataTypes.CHAR(64), allowNull: false });
export const flag = () => ({ type: DataTypes.BOOLEAN, allowNull: false, defaultValue: false });
export const prose = () => ({ type: DataTypes.TEXT, allowNull: false });
export const text = (length: number) => ({ type: DataTypes.STRING(length), allowNull: false });
