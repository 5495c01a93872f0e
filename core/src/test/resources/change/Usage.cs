using System;
using System.Collections.Generic;
using System.IO;
using System.Linq;
using System.Reflection;
using System.Text;

/// <summary>
/// Writes source that uses everything that can be used of a generated assembly, seen from the assembly alone: one file for who calls, one
/// for who implements. Arguments: the assembly, then the two files.
/// </summary>
public static class Usage
{
    private static readonly StringBuilder Body = new StringBuilder();
    private static int names;

    public static int Main(string[] arguments)
    {
        Type[] types = Assembly.LoadFrom(Path.GetFullPath(arguments[0])).GetExportedTypes()
            .Where(type => !type.Namespace.EndsWith("Runtime") && type.Name != "Documents" && !type.Name.EndsWith("Messages")
                && type.Name != "PublishedContract")
            .OrderBy(type => type.FullName, StringComparer.Ordinal).ToArray();
        for (int file = 1; file <= 2; file++)
        {
            Body.Clear();
            Body.Append("public abstract class ").Append(file == 1 ? "Calling" : "Implementing").Append("\n{\n");
            foreach (Type type in types)
            {
                Use(type, file == 1);
            }
            File.WriteAllText(arguments[file], Body.Append("}\n").ToString());
        }
        return 0;
    }

    private static void Use(Type type, bool calls)
    {
        if (type.IsEnum)
        {
            Body.Append("    public int C" + names++ + "(" + Name(type) + " it) { switch (it) {");
            foreach (string constant in Enum.GetNames(type))
            {
                Body.Append(" case " + Name(type) + "." + constant + ": return 1;");
            }
            Body.Append(" default: return 0; } }\n");
        }
        else if (type.IsInterface && !calls)
        {
            Body.Append("    public class I" + names++ + " : " + Name(type) + "\n    {\n");
            foreach (MethodInfo method in Methods(type))
            {
                Body.Append("        public " + Name(method.ReturnType) + " " + method.Name + "(" + Parameters(method)
                    + ") { throw new System.NotSupportedException(); }\n");
            }
            Body.Append("    }\n");
        }
        else if (type.IsInterface || type.Name.EndsWith("Client"))
        {
            if (calls)
            {
                foreach (MethodInfo method in Methods(type))
                {
                    string call = "it." + method.Name + "("
                        + string.Join(", ", method.GetParameters().Select(p => p.Name + ": p_" + p.Name)) + ");";
                    Body.Append("    public void O" + names++ + "(" + Name(type) + " it" + Comma(method)
                        + string.Join(", ", method.GetParameters().Select(p => Name(p.ParameterType) + " p_" + p.Name)) + ") { "
                        + (method.ReturnType == typeof(void) ? "" : Name(method.ReturnType) + " r = ") + call + " }\n");
                }
            }
        }
        else if (type.IsAbstract && type.IsSealed)
        {
            foreach (FieldInfo field in type.GetFields(BindingFlags.Public | BindingFlags.Static))
            {
                Body.Append(calls ? "    public object F" + names++ + " = " + Name(type) + "." + field.Name + ";\n" : "");
            }
        }
        else if (type.Name.EndsWith("Endpoint"))
        {
            Body.Append(calls ? "" : "    public " + Name(type) + " E" + names++ + ";\n");
        }
        else
        {
            Value(type, calls);
        }
    }

    private static void Value(Type type, bool calls)
    {
        string name = Name(type);
        bool isFault = typeof(Exception).IsAssignableFrom(type);
        bool isXml = type.GetInterfaces().Concat(Bases(type)).Any(one => one.Name == "XmlObject");
        foreach (ConstructorInfo made in type.IsAbstract ? new ConstructorInfo[0] : type.GetConstructors())
        {
            if (isXml || !calls)
            {
                ParameterInfo[] given = made.GetParameters();
                Body.Append("    public " + name + " N" + names++ + "("
                    + string.Join(", ", given.Select((p, i) => Name(p.ParameterType) + " a" + i)) + ") { return new " + name + "("
                    + string.Join(", ", given.Select((p, i) => "a" + i)) + "); }\n");
            }
        }
        if (isFault && calls)
        {
            Body.Append("    public void T" + names++ + "() { try { } catch (" + name + ") { } }\n");
        }
        foreach (PropertyInfo property in type.GetProperties(BindingFlags.Public | BindingFlags.Instance)
            .Where(one => !one.DeclaringType.FullName.StartsWith("System.") && !one.DeclaringType.Namespace.EndsWith("Runtime")
                && one.GetIndexParameters().Length == 0)
            .OrderBy(one => one.Name, StringComparer.Ordinal))
        {
            if (!isXml && !isFault && !calls)
            {
                continue;
            }
            string of = Name(property.PropertyType);
            Body.Append("    public " + of + " P" + names++ + "(" + name + " it) { return it." + property.Name + "; }\n");
            if (property.GetSetMethod() != null)
            {
                Body.Append("    public void S" + names++ + "(" + name + " it, " + of + " a) { it." + property.Name + " = a; }\n");
            }
        }
        if (type.BaseType != null && !type.BaseType.Namespace.StartsWith("System") && !type.BaseType.Namespace.EndsWith("Runtime"))
        {
            Body.Append("    public " + Name(type.BaseType) + " B" + names++ + "(" + name + " it) { return it; }\n");
        }
    }

    private static IEnumerable<Type> Bases(Type type)
    {
        for (Type at = type.BaseType; at != null; at = at.BaseType)
        {
            yield return at;
        }
    }

    private static IEnumerable<MethodInfo> Methods(Type type)
    {
        return type.GetMethods(BindingFlags.Public | BindingFlags.Instance | BindingFlags.DeclaredOnly)
            .Where(method => !method.IsSpecialName)
            .OrderBy(method => method.ToString(), StringComparer.Ordinal);
    }

    private static string Comma(MethodInfo method)
    {
        return method.GetParameters().Length == 0 ? "" : ", ";
    }

    private static string Parameters(MethodInfo method)
    {
        return string.Join(", ", method.GetParameters().Select((p, i) => Name(p.ParameterType) + " a" + i));
    }

    private static string Name(Type type)
    {
        if (type == typeof(void))
        {
            return "void";
        }
        if (type.IsArray)
        {
            return Name(type.GetElementType()) + "[]";
        }
        string name = type.FullName ?? type.Namespace + "." + type.Name;
        if (!type.IsGenericType)
        {
            return "global::" + name.Replace('+', '.');
        }
        string plain = type.GetGenericTypeDefinition().FullName.Replace('+', '.');
        return "global::" + plain.Substring(0, plain.IndexOf('`')) + "<" + string.Join(", ", type.GetGenericArguments().Select(Name)) + ">";
    }
}
